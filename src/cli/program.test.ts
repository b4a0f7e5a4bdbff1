import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { aBounce, aMessage } from "@tests/support/mail";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { runTray } from "./program";

let tray: TestTray;
const folder = mkdtempSync(join(tmpdir(), "common-tray-cli-"));
beforeAll(async () => {
  tray = await testTray();
});
afterAll(async () => {
  rmSync(folder, { recursive: true });
  await tray.close();
});

async function run(args: string[], password = "") {
  const out: string[] = [];
  const notes: string[] = [];
  const code = await runTray(args, {
    out: (line) => out.push(line),
    note: (line) => notes.push(line),
    readPassword: async () => password,
    writeFile: async (path, work) => {
      const pieces: Uint8Array[] = [];
      const done = await work(async (piece) => void pieces.push(piece));
      writeFileSync(path, Buffer.concat(pieces));
      return done;
    },
    withDeps: (work) => work(tray.deps),
  });
  return { code, out, notes: notes.join("\n"), json: () => JSON.parse(out.join("\n")) };
}
const file = (name: string, content: Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};

describe("inspecting", () => {
  it("gives everything understood of each message, one object a line", async () => {
    const person = file("person.eml", aMessage({ body: "Yes.\r\n\r\n> No?" }));
    const bounce = file("bounce.eml", aBounce({ of: "m@x", recipient: "sexton@oldwyke.example" }));
    const { code, out } = await run(["inspect", "message", person, bounce]);
    expect([code, out.length]).toEqual([0, 2]);
    expect(JSON.parse(out[0] ?? "")).toMatchObject({
      file: person,
      messageId: "m1@vanehouse.example",
      date: "2026-11-24T08:30:00.000Z",
      from: { name: "Perpetua Vane", address: "perpetua.vane@vanehouse.example" },
      to: [{ name: "", address: "office@ottermoor.example" }],
      ownText: "Yes.",
      kind: "person",
      failedRecipients: [],
      list: null,
      unsubscribe: [],
      warnings: [],
    });
    expect(JSON.parse(out[1] ?? "")).toMatchObject({
      kind: "bounce",
      failedRecipients: [{ address: "sexton@oldwyke.example" }],
    });
  });

  it("says what would be proposed for each conversation of a stream, and which line is none", async () => {
    const stream = file(
      "stream.jsonl",
      Buffer.from(
        [
          { event: "member", at: "2026-11-01T08:00:00Z", id: "col", name: "Col" },
          {
            event: "record",
            at: "2026-11-01T08:00:00Z",
            id: "mill",
            code: "P-26-001",
            title: "Mill organ",
            parent: null,
          },
          {
            event: "conversation",
            at: "2026-11-02T08:00:00Z",
            id: "one",
            from: { address: "ada@vane.example", name: "Ada" },
            subject: "About P-26-001",
            text: "When do you come?",
            decided: { owner: "col", categories: [], record: "mill", settledUnanswered: false },
          },
          { event: "comet", at: "2026-11-02T08:00:00Z", id: "x" },
        ]
          .map((event) => JSON.stringify(event))
          .join("\n"),
      ),
    );
    const proposals = await run(["inspect", "proposals", stream]);
    expect(proposals.code).toBe(1);
    expect(proposals.notes).toContain("line 4:");
    expect(JSON.parse(proposals.out[0] ?? "")).toMatchObject({
      id: "one",
      proposals: [{ kind: "file", value: "mill", why: { kind: "code" } }],
    });
  });

  it("gives HTML as it would be shown, and what is held back", async () => {
    const html = file(
      "html.eml",
      aMessage({
        headers: { "Content-Type": "text/html" },
        body: '<p>a</p><script>b</script><img src="https://x.example/c.gif">',
      }),
    );
    expect((await run(["inspect", "html", html])).json()).toMatchObject({
      html: expect.stringContaining("<p>a</p>"),
      remoteContent: ["https://x.example/c.gif"],
      warnings: ["taken out: script"],
    });
  });

  it("says which file is not there", async () => {
    const { code, notes } = await run(["inspect", "message", join(folder, "none.eml")]);
    expect(code).toBe(1);
    expect(notes).toContain("none.eml");
  });
});

describe("rules in files", () => {
  const SCRIPT = `require ["fileinto", "envelope"];
# Tin
if allof (header :contains "subject" "tin", not envelope "from" "") { fileinto "Tuning"; stop; }
# Answered
if address "from" "ada@vane.example" { reject "No."; }
`;
  const mail = Buffer.concat(
    ["A tin box", "Pipes"].map((subject, at) =>
      Buffer.concat([
        Buffer.from("From a Mon Nov 30 09:00:00 2026\n"),
        aMessage({
          headers: {
            Subject: subject,
            "Message-ID": `<${at}@vane.example>`,
            From: "Ada <ada@vane.example>",
            "Return-Path": "<ada@vane.example>",
          },
        }),
        Buffer.from("\n\n"),
      ]),
    ),
  );

  it("are read from a script, tried, and written as one again", async () => {
    const script = file("own.sieve", Buffer.from(SCRIPT));
    const read = await run(["rules", "from-sieve", script]);
    expect(read.code).toBe(0);
    expect(read.notes).toBe(`${script}: line 5, column 40: Nothing that rules do is “reject”.`);
    expect(read.json()).toMatchObject([
      {
        name: "Tin",
        isLast: true,
        actions: [{ kind: "categorise", category: "Tuning", give: true }, { kind: "settle" }],
      },
      { name: "Answered", condition: { kind: "address", where: "from" }, actions: [] },
    ]);

    const rules = file("rules.json", Buffer.from(read.out.join("\n")));
    const tried = await run(["rules", "try", rules, file("two.mbox", mail)]);
    expect(tried.out.map((line) => JSON.parse(line))).toEqual([
      {
        messageId: "0@vane.example",
        rules: ["Tin"],
        effects: [{ kind: "categorise", category: "Tuning", give: true }, { kind: "settle" }],
        why: [{ rule: "Tin", found: ["with “tin” in the subject"] }],
      },
      {
        messageId: "1@vane.example",
        rules: ["Answered"],
        effects: [],
        why: [{ rule: "Answered", found: ["from ada@vane.example"] }],
      },
    ]);

    const written = await run(["rules", "to-sieve", rules]);
    expect(written.code).toBe(0);
    const again = await run(["rules", "from-sieve", file("again.sieve", Buffer.from(written.out.join("\n")))]);
    expect(again.json()).toEqual(read.json());
  });

  it("say where a script is none, and which rule is none", async () => {
    const script = file("broken.sieve", Buffer.from("if true {\n  keep }"));
    expect(await run(["rules", "from-sieve", script])).toMatchObject({
      code: 1,
      out: [],
      notes: `${script}: line 2, column 8: A semicolon or a block is missing behind “keep”.`,
    });
    const rules = file(
      "broken.json",
      Buffer.from(
        JSON.stringify([
          {
            name: "Tin",
            condition: {
              kind: "all",
              of: [{ kind: "text", where: "subject", match: { how: "pattern", values: ["("] } }],
            },
          },
        ]),
      ),
    );
    const tried = await run(["rules", "try", rules, script]);
    expect([tried.code, tried.notes]).toEqual([
      1,
      `${rules}: rules[0].condition.of 0: “(” is no pattern: missing closing ).`,
    ]);
  });

  it("tell what a mail server cannot do, and write the rest", async () => {
    const rules = file(
      "own.json",
      Buffer.from(
        JSON.stringify([
          { name: "Ours", condition: { kind: "owner-away" }, actions: [{ kind: "settle" }] },
          {
            name: "Tin",
            condition: { kind: "every" },
            actions: [{ kind: "assign", owner: "Ines Varga" }, { kind: "bin" }],
          },
        ]),
      ),
    );
    const { code, out, notes } = await run(["rules", "to-sieve", rules]);
    expect(code).toBe(1);
    expect(out.join("\n")).toContain('fileinto :create "Trash";');
    expect(notes.split("\n")).toEqual([
      "Ours: left out. A mail server cannot ask for: whose owner is away.",
      "Tin: No mail server assigns it to Ines Varga.",
      "a mail server cannot do all of it",
    ]);
  });
});

describe("calling it wrongly", () => {
  it.each([
    [["explode"], "unknown command"],
    [["import", "x"], "--tray"],
    [["tray", "add", "Office!", "--name", "x", "--address", "a@x.example"], "no name for a URL"],
    [["tray", "add", "office", "--name", "x", "--address", "nobody"], "nobody is no address"],
    [["tray", "add", "office", "--name", "x", "--address", "a@x.example", "--time-zone", "Mars/Base"], "no time zone"],
    [["member", "add", "ines", "--name", "Ines", "--initials", "I", "--tray", "office"], "no initials"],
    [["member", "add", "ines", "--name", "Ines", "--initials", "IV", "--tray", "office", "--role", "queen"], "no role"],
    [["inspect", "turns", "x", "--ours", "a@x.example", "--now", "noon"], "noon is no instant"],
  ])("%j exits 2 and says why", async (args, words) => {
    const { code, notes, out } = await run(args);
    expect([code, out]).toEqual([2, []]);
    expect(notes).toContain(words);
  });
});

describe("asking for help", () => {
  it("is no mistake", async () => {
    expect((await run(["--help"])).code).toBe(0);
  });
});

describe("setting up", () => {
  it("refuses a member for a tray that is not there", async () => {
    const args = ["member", "add", "ines", "--name", "Ines Varga", "--initials", "IV", "--tray", "nowhere"];
    expect(await run(args, "long enough")).toMatchObject({ code: 1, notes: "there is no tray nowhere" });
  });
  it("makes a tray and a member, and lists her without her password", async () => {
    await run(["tray", "add", "office", "--name", "Office", "--address", "office@ottermoor.example"]);
    await run(["member", "add", "ines", "--name", "Ines Varga", "--initials", "IV", "--tray", "office"], "long enough");
    const { out } = await run(["member", "list"]);
    expect(out.map((line) => JSON.parse(line))).toMatchObject([{ signInName: "ines", name: "Ines Varga" }]);
    expect(out.join()).not.toContain("argon2");
  });
  it("refuses a name that is taken, and a password that is short", async () => {
    const member = ["member", "add", "ines", "--name", "Ines Varga", "--initials", "IV", "--tray", "office"];
    expect(await run(member, "long enough")).toMatchObject({ code: 1, notes: "ines is taken" });
    expect((await run(member, "short")).code).toBe(2);
  });
  it("imports into the tray of an address, and refuses another", async () => {
    const message = file("one.eml", aMessage({}));
    expect((await run(["import", message, "--tray", "office@ottermoor.example"])).json()).toMatchObject({
      read: 1,
      added: 1,
    });
    const again = await run(["import", message, "--tray", "office@ottermoor.example"]);
    expect(again.json()).toMatchObject({ read: 1, added: 0, knownAlready: 1 });
    expect(await run(["import", message, "--tray", "other@ottermoor.example"])).toMatchObject({ code: 1 });
  });
  it("finds the database healthy, and says so when it is not", async () => {
    expect((await run(["doctor"])).json()).toMatchObject({ healthy: true, conversations: 1 });
  });
});
