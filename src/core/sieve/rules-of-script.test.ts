import { inEnglish } from "@tests/support/english";
import { addressed, all, any, none, worded } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import { type CategoryId, type RecordId, trustedId } from "../kernel/ids";
import { type Condition, EVERY_MESSAGE } from "../rules/condition";
import type { RuleAction } from "../rules/rule";
import { rulesOfScript } from "./rules-of-script";

const REQUIRE = `require ["fileinto", "copy", "mailbox", "envelope", "body", "date", "relational", "regex", "variables",
  "imap4flags", "subaddress", "comparator-i;ascii-numeric", "encoded-character", "ihave"];\n`;

function read(script: string) {
  const result = rulesOfScript(REQUIRE + script);
  if (!result.ok) throw new Error(`${inEnglish(result.error.problem)} at ${result.error.line}`);
  return result.value;
}

function conditionOf(test: string): Condition | undefined {
  return read(`if ${test} { keep; }`).rules[0]?.condition;
}

const has = (...values: readonly string[]) => worded("subject", "contains", ...values);
const filed = (name: string): RuleAction => ({
  kind: "categorise",
  categoryId: trustedId<CategoryId>(name),
  give: true,
});
const SETTLE: RuleAction = { kind: "settle" };

describe("what a script asks for", () => {
  it.each<[test: string, condition: Condition]>([
    ["true", EVERY_MESSAGE],
    ['header :contains "Subject" ["tin", "pipe"]', has("tin", "pipe")],
    ['not anyof (header :contains "subject" "tin", not exists "cc")', none(has("tin"), none(there("cc")))],
    ['allof (header :contains "subject" "tin", anyof (true, exists "x"))', has("tin")],
    ['header :contains "list-id" "<Bell.Halse.example>"', { kind: "list", of: ["bell.halse.example"] }],
    ['header :contains ["to", "x-any"] ""', { kind: "header", names: ["to", "x-any"], match: { how: "exists" } }],
    ['exists ["to", "cc"]', all(there("to"), there("cc"))],
    ['address ["cc", "to"] "Vane@vane.example"', addressed("recipient", "vane@vane.example")],
    ['address :domain :is "from" "vane.example"', addressed("from", "@vane.example")],
    [
      'anyof (address "from" "a@vane.example", address :domain "from" "dombach.example")',
      addressed("from", "a@vane.example", "@dombach.example"),
    ],
    [
      'address :comparator "i;octet" :localpart :matches "sender" "b*"',
      {
        kind: "address-part",
        names: ["sender"],
        part: "localpart",
        match: { how: "like", values: ["b*"], isExact: true },
      },
    ],
    [
      'envelope :detail "to" "tin"',
      { kind: "address-part", names: ["envelope-to"], part: "detail", match: { how: "is", values: ["tin"] } },
    ],
    ["allof (size :over 2K, size :under 1M)", { kind: "size", over: 2_048, under: 1_048_576 }],
    ['body :contains "tin"', worded("parts", "contains", "tin")],
    ['body :text :regex "a.b"', worded("parts", "pattern", "(?s)a.b")],
    ['body :content "text" :is "tin"', worded("parts", "is", "tin")],
    ['currentdate :is "weekday" ["0", "1"]', { kind: "weekday", of: [6, 0] }],
    [
      'allof (currentdate :value "ge" "date" "2026-11-01", currentdate :value "le" "date" "2026-11-30")',
      { kind: "days", from: "2026-11-01", until: "2026-11-30" },
    ],
    [
      'date :originalzone :value "gt" :comparator "i;ascii-numeric" "Date" "hour" "18"',
      {
        kind: "date-part",
        field: "date",
        zone: "original",
        part: "hour",
        match: { how: "value", relation: "gt", isNumber: true, values: ["18"] },
      },
    ],
    [
      'header :count "ge" "received" "3"',
      { kind: "header", names: ["received"], match: { how: "count", relation: "ge", values: ["3"] } },
    ],
    [
      'header :comparator "i;ascii-numeric" "x-score" "7"',
      { kind: "header", names: ["x-score"], match: { how: "value", relation: "eq", isNumber: true, values: ["7"] } },
    ],
    [`header :contains "subject" "t\${hex: 69}n \${unicode: 2a}"`, has("tin *")],
    ['ihave "fileinto"', EVERY_MESSAGE],
    ['not ihave "enotify"', EVERY_MESSAGE],
  ])("%s", (test, condition) => {
    expect(conditionOf(test)).toEqual(condition);
  });

  it("asks about letters beyond ASCII in the field, where they have their case", () => {
    expect(conditionOf('header :contains "subject" "Été"')).toMatchObject({ kind: "header", names: ["subject"] });
  });
});

function there(name: string): Condition {
  return { kind: "header", names: [name], match: { how: "exists" } };
}

describe("what a script does", () => {
  it.each<[commands: string, actions: readonly RuleAction[]]>([
    ['fileinto "Tuning";', [filed("Tuning"), SETTLE]],
    ['fileinto :create :copy "INBOX.Tuning";', [filed("Tuning")]],
    ['fileinto "Tuning"; keep;', [filed("Tuning")]],
    ['fileinto "INBOX";', []],
    ['fileinto "archive";', [SETTLE]],
    ['fileinto "Trash";', [{ kind: "bin" }]],
    ["discard;", [{ kind: "bin" }]],
    ['fileinto :copy "Tuning"; discard;', [filed("Tuning"), SETTLE]],
    ['fileinto "Junk";', [{ kind: "junk" }]],
    ['fileinto "Records/P-26-012";', [{ kind: "file", recordId: trustedId<RecordId>("P-26-012") }, SETTLE]],
    ['addflag "\\\\Flagged"; keep;', [{ kind: "urgency", urgency: "today" }]],
    ['addflag ["Tuning", "Hall Organ"];', [filed("Tuning"), filed("Hall"), filed("Organ")]],
    ['removeflag "Tuning";', [{ ...filed("Tuning"), give: false } as RuleAction]],
    ['keep :flags "Tuning";', [filed("Tuning")]],
  ])("%s", (commands, actions) => {
    expect(read(commands).rules).toEqual([
      { name: "1", isOn: true, isLast: false, condition: EVERY_MESSAGE, exception: null, actions },
    ]);
  });
});

describe("the way through a script", () => {
  const summary = (script: string) =>
    read(script).rules.map(({ condition, exception, isLast, actions }) => ({
      condition,
      exception,
      isLast,
      filed: actions.flatMap((action) => (action.kind === "categorise" ? [action.categoryId] : [])).join(),
    }));
  const tin = 'header :contains "subject" "tin"';
  const pipe = 'header :contains "subject" "pipe"';

  it("makes an exception of what comes before it in a chain", () => {
    expect(summary(`if ${tin} { fileinto "A"; } elsif ${pipe} { fileinto "B"; } else { fileinto "C"; }`)).toEqual([
      { condition: has("tin"), exception: null, isLast: false, filed: "A" },
      { condition: has("pipe"), exception: has("tin"), isLast: false, filed: "B" },
      { condition: none(has("tin", "pipe")), exception: null, isLast: false, filed: "C" },
    ]);
  });

  it("needs no exception where what comes before it ends everything", () => {
    expect(summary(`if ${tin} { fileinto "A"; stop; } elsif ${pipe} { fileinto "B"; }`)).toEqual([
      { condition: has("tin"), exception: null, isLast: true, filed: "A" },
      { condition: has("pipe"), exception: null, isLast: false, filed: "B" },
    ]);
  });

  it("goes into blocks within blocks, and on behind them", () => {
    expect(summary(`if ${tin} { if not ${pipe} { fileinto "A"; stop; } fileinto "B"; } fileinto "C";`)).toEqual([
      { condition: has("tin"), exception: has("pipe"), isLast: true, filed: "A" },
      { condition: has("tin"), exception: null, isLast: false, filed: "B" },
      { condition: EVERY_MESSAGE, exception: null, isLast: false, filed: "C" },
    ]);
  });

  it("does nothing of what comes after a stop", () => {
    expect(summary('fileinto "A"; stop; fileinto "B";').map((one) => one.filed)).toEqual(["A"]);
  });

  it("follows variables, each on its way", () => {
    const script = `set "box" "A"; if ${tin} { set :upper "box" "b"; } if ${pipe} { fileinto "\${box}-1"; }`;
    expect(summary(script)).toEqual(
      [
        { condition: has("tin"), exception: null, isLast: false, filed: "B-1" },
        { condition: has("pipe"), exception: has("tin"), isLast: false, filed: "A-1" },
      ].map((one, at) => (at === 0 ? { ...one, condition: all(has("tin"), has("pipe")) } : one)),
    );
  });

  it("compares texts that it knows when it is read", () => {
    const script = (value: string) => `set "box" "A"; if string :is "\${box}" "${value}" { fileinto "X"; }`;
    expect(summary(script("A"))).toHaveLength(1);
    expect(summary(script("B"))).toEqual([]);
  });

  it("keeps what is switched off", () => {
    const [rule] = read(`if allof (false, ${tin}) { fileinto "A"; stop; } elsif ${pipe} { keep; }`).rules;
    expect(rule).toMatchObject({ isOn: false, isLast: true, condition: has("tin") });
  });

  it("calls rules by the comments before them, none twice", () => {
    const script = `# Tin letters\nif ${tin} { keep; }\n/* pipes */ if ${pipe} { keep; } else { keep; }\n# tin letters\nkeep;`;
    expect(read(script).rules.map(({ name }) => name)).toEqual(["Tin letters", "pipes", "3", "tin letters (2)"]);
  });
});

describe("what has no counterpart", () => {
  it("is told with its place, and the rest is there", () => {
    const script = [
      'reject "No.";',
      'if mailboxexists "Tuning" { keep; } elsif true { keep; }',
      `if header :matches "subject" "*-*" { fileinto "lists/\${1}"; }`,
      'if header :contains "subject" "tin" { setflag "\\\\Seen"; fileinto "A"; }',
      'if body :raw :contains "x" { keep; }',
    ].join("\n");
    const { rules, leftOut } = read(script);
    expect(rules.map(({ actions }) => actions)).toEqual([[], [], [filed("A"), SETTLE]]);
    expect(leftOut.map(({ line, column, problem }) => `${line}:${column} ${inEnglish(problem)}`)).toEqual([
      "3:1 Nothing that rules do is “reject”.",
      "4:4 Nothing that rules ask for is “mailboxexists”.",
      "4:37 It is for what the test before it is not for, and that test is left out.",
      `5:47 “lists/\${1}” is different for each message. Rules have fixed names and values.`,
      "6:39 The flag “\\Seen” has no counterpart: \\Flagged is an urgency, other words are categories.",
      "7:4 Of bodies only the text can be searched.",
    ]);
  });
});

describe("what is no script", () => {
  it.each<[script: string, place: string, problem: string]>([
    ["if true { keep }", "1:16", "A semicolon or a block is missing behind “keep”."],
    ['if header "subject" "tin { keep; }', "1:21", "The text has no end."],
    ["keep; /* open", "1:7", "The comment has no end."],
    ["keep;\n  }", "2:3", "“}” is not expected here."],
    ["if true {\n keep;", "2:7", "“}” is missing."],
    ["if { keep; }", "1:1", "“if” wants one test."],
    ["else { keep; }", "1:1", "“else” has no “if” before it."],
    ['fileinto "A";', "1:1", "It needs require “fileinto” at the beginning."],
    ['require "fileinto"; fileinto :new "A";', "1:30", "“fileinto” has no “:new”."],
    ['require "fileinto"; fileinto 3;', "1:30", "“fileinto” wants one text here."],
    ['require "fileinto"; fileinto;', "1:21", "“fileinto” lacks an argument."],
    ['if header :is :contains "a" "b" { keep; }', "1:4", "“:is” and “:contains” cannot stand together."],
    ['if header "a b" "c" { keep; }', "1:11", "“a b” is no name of a header field."],
    ['if header :comparator "i;none" "a" "b" { keep; }', "1:23", "“i;none” is no comparator that is known."],
    ['require "regex"; if header :regex "a" "(" { keep; }', "1:39", "The pattern is none: missing closing )."],
    ["if size 3 { keep; }", "1:9", "“size” has an argument too many."],
    ["if allof () { keep; }", "1:11", "“)” is not expected here."],
    ["if size :over 99999999999G { keep; }", "1:15", "The number is too large."],
    ["keep; %", "1:7", "“%” is not expected here."],
  ])("%s", (script, place, problem) => {
    const result = rulesOfScript(script);
    const error = result.ok ? null : result.error;
    expect(error && `${error.line}:${error.column} ${inEnglish(error.problem)}`).toBe(`${place} ${problem}`);
  });

  it("is nothing that is nested without end", () => {
    expect(rulesOfScript(`if ${"not ".repeat(5_000)}true { keep; }`).ok).toBe(false);
    expect(rulesOfScript("if true {".repeat(5_000)).ok).toBe(false);
  });
});

it("reads texts of several lines, without their dots", () => {
  const script = 'if header :is "x-any" text: # a note\nfirst\n..second\n.\n{ keep; }';
  expect(read(script).rules[0]?.condition).toMatchObject({ match: { values: ["first\n.second\n"] } });
});

it("has any of several things of one kind in one test", () => {
  expect(conditionOf('anyof (header :contains "subject" "a", exists "b", header :contains "subject" "c")')).toEqual(
    any(has("a", "c"), there("b")),
  );
});

it.each([
  ['redirect "a@vane.example";', [{ kind: "redirect", to: "a@vane.example" }, { kind: "settle" }]],
  ['redirect :copy "a@vane.example";', [{ kind: "redirect", to: "a@vane.example" }]],
  ['redirect "a@vane.example"; keep;', [{ kind: "redirect", to: "a@vane.example" }]],
  ['vacation "Away.";', [{ kind: "answer", text: "Away.", days: 7 }]],
  ['vacation :days 0 :addresses ["b@x.example"] :handle "h" "Away.";', [{ kind: "answer", text: "Away.", days: 1 }]],
])("%s sends something", (command, actions) => {
  const { rules, leftOut } = read(`require ["copy", "vacation"];\nif true { ${command} }`);
  expect(leftOut).toEqual([]);
  expect(rules[0]?.actions).toEqual(actions);
});

it.each([
  ['redirect "nobody";', "“nobody” is no address."],
  ['vacation :subject "Away" "Away.";', "An answer cannot have :subject of its own."],
])("%s has no counterpart", (command, problem) => {
  const { leftOut } = read(`require ["copy", "vacation"];\nif true { ${command} keep; }`);
  expect(leftOut.map((one) => inEnglish(one.problem))).toEqual([problem]);
});
