import { inEnglish } from "@tests/support/english";
import { addressed, all, any, none, worded } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, trustedId } from "../kernel/ids";
import type { Condition } from "../rules/condition";
import type { RuleAction } from "../rules/rule";
import type { WrittenRule } from "./rules-of-script";
import { scriptOfRules } from "./script-of-rules";

const category = (name: string): RuleAction => ({
  kind: "categorise",
  categoryId: trustedId<CategoryId>(name),
  give: true,
});

const rule = (given: Partial<WrittenRule>): WrittenRule => ({
  name: "Tin",
  isOn: true,
  isLast: false,
  condition: addressed("from", "@dombach.example"),
  exception: null,
  actions: [category("Tuning")],
  ...given,
});

it("is a script that a mail server takes", () => {
  const { script, lacks } = scriptOfRules([
    rule({
      condition: all(addressed("from", "a@vane.example", "@dombach.example"), worded("subject", "words", "Tin order")),
      exception: any(worded("subject", "contains", "Re:"), none({ kind: "list", of: ["bell.example"] })),
      actions: [category("Tuning"), { kind: "settle" }, { kind: "urgency", urgency: "today" }],
      isLast: true,
    }),
    rule({ name: "Off", isOn: false, condition: { kind: "every" }, actions: [{ kind: "bin" }] }),
  ]);
  expect(lacks).toEqual([]);
  expect(script).toBe(`require ["fileinto", "imap4flags", "mailbox", "regex"];

# Tin
if allof (anyof (address :all :is "from" "a@vane.example", address :domain :is "from" "dombach.example"), allof (header :regex "subject" "(^|[^[:alnum:]])Tin([^[:alnum:]]|$)", header :regex "subject" "(^|[^[:alnum:]])order([^[:alnum:]]|$)")) {
  if not anyof (header :contains "subject" "Re:", not header :contains "list-id" "<bell.example>") {
    addflag "\\\\Flagged";
    fileinto :create "Tuning";
    stop;
  }
}

# Off
if allof (false, true) {
  fileinto :create "Trash";
}
`);
});

describe("what a mail server cannot", () => {
  it.each<[what: string, condition: Condition]>([
    ["owned by nobody", { kind: "owner", of: [null] }],
    ["from a colleague", { kind: "address", where: "from", of: [{ kind: "colleague" }] }],
    ["with “été” in the subject", worded("subject", "words", "été")],
    ["with “tin” as a part of the text", worded("text", "contains", "tin")],
    ["that comes within working hours", { kind: "open", is: true }],
  ])("ask for %s: the rule is left out", (what, condition) => {
    const { script, lacks } = scriptOfRules([rule({ condition }), rule({ name: "Second" })]);
    expect(script).not.toContain("# Tin");
    expect(script).toContain("# Second");
    expect(lacks.map((lack) => `${lack.rule}: ${inEnglish(lack.lacks)}`)).toEqual([
      `Tin: A mail server cannot ask for: ${what}.`,
    ]);
    expect(lacks[0]?.isLeftOut).toBe(true);
  });

  it.each<[what: string, action: RuleAction]>([
    ["assigns it to ines", { kind: "assign", ownerId: trustedId<MemberId>("ines") }],
    ["adds Inbox", category("Inbox")],
    ["adds Trash", category("Trash")],
    ["takes Tuning off", { ...category("Tuning"), give: false } as RuleAction],
    ["sets the urgency to Reading", { kind: "urgency", urgency: "reading" }],
  ])("do what %s: the rule lacks it", (what, action) => {
    const { script, lacks } = scriptOfRules([rule({ actions: [action, category("Bell")] })]);
    expect(script).toContain(':copy :create "Bell"');
    expect(lacks.map((lack) => inEnglish(lack.lacks))).toEqual([`No mail server ${what}.`]);
    expect(lacks[0]?.isLeftOut).toBe(false);
  });
});
