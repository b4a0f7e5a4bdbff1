import { type Desk, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { trustedId } from "../../core/kernel/ids";
import {
  bringInScript,
  editRule,
  explainMessage,
  getRules,
  openConversation,
  receiveMessage,
  scriptOfTray,
  setUpCategories,
  tryScript,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  await setUpCategories(tray.deps, [{ code: "IN", name: "Invoices", ink: "moss", parentCode: null }]);
});
afterAll(() => tray.close());

const SCRIPT = `require ["fileinto", "body"];
# Invoices
if header :contains "subject" "invoice" {
  fileinto "invoices";
}
# Patches
if body :contains "patchword" { fileinto "Nowhere"; stop; }
# Away
if header :contains "subject" "away" { reject "later"; }
`;

const linesOf = (lines: readonly { line: number; name: string | null; kind: string; problem: unknown }[]) =>
  lines.map(({ line, name, kind, problem }) => [line, name, kind, inEnglish(problem)]);

describe("a script of a mail server", () => {
  it("is told line by line, brought in switched off, and is there already the next time", async () => {
    const expected = [
      [4, "Invoices", "new", null],
      [7, "Patches", "new", null],
      [7, null, "problem", "There is no category “Nowhere”."],
      [9, "Away", "problem", "Nothing that it does has a counterpart."],
      [9, null, "problem", "Nothing that rules do is “reject”."],
    ];
    const tried = await tryScript(tray.deps, desk.lead, SCRIPT);
    expect(tried.ok && linesOf(tried.value)).toEqual(expected);
    expect(await getRules(tray.deps, desk.lead)).toEqual([]);

    const brought = await bringInScript(tray.deps, desk.lead, SCRIPT);
    expect(brought.ok && linesOf(brought.value)).toEqual(expected);
    const rules = await getRules(tray.deps, desk.lead);
    expect(rules.map(({ name, isOn, isLast, actions }) => [name, isOn, isLast, actions.length])).toEqual([
      ["Invoices", false, false, 2],
      ["Patches", false, true, 1],
    ]);

    const again = await tryScript(tray.deps, desk.lead, SCRIPT);
    expect(again.ok && again.value.slice(0, 2).map(({ kind }) => kind)).toEqual(["same", "same"]);
    const other = await tryScript(tray.deps, desk.lead, "# invoices\ndiscard;");
    expect(other.ok && other.value.map(({ name }) => name)).toEqual(["invoices (2)"]);
  });

  it("is written from the rules of a tray, with the names that people know", async () => {
    const { script } = await scriptOfTray(tray.deps, desk.lead);
    expect(script).toContain('# Invoices\nif allof (false, header :contains "subject" "invoice") {');
    expect(script).toContain('fileinto :create "Invoices";');
  });

  it("says where it is none", async () => {
    const tried = await tryScript(tray.deps, desk.lead, "keep;\n}");
    expect(tried).toMatchObject({ ok: false, error: { kind: "no-script", at: { line: 2, column: 1 } } });
  });

  it("is for those who lead the tray only", async () => {
    const brought = await bringInScript(tray.deps, desk.grant, "discard;");
    expect(brought).toMatchObject({ ok: false, error: { kind: "leads-only" } });
  });
});

describe("why, and why not", () => {
  it("is said of a message as it came, with all of its texts", async () => {
    for (const rule of await getRules(tray.deps, desk.lead))
      await editRule(tray.deps, desk.lead, { ...rule, isOn: true });
    // What arrives is asked by rules that are at most two seconds old.
    passes(tray, 1);
    const raw = aMessage({
      headers: { Subject: "An invoice", "MIME-Version": "1.0", "Content-Type": 'multipart/mixed; boundary="b"' },
      body: "--b\n\nHello\n--b\nContent-Type: text/x-patch; name=a.patch\n\n+ patchword\n--b--\n",
    });
    const recipients = desk.lead.tray.addresses;
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@vane.example", recipients });
    const opened = await openConversation(tray.deps, desk.lead, kept?.conversationId ?? trustedId(""));
    const message = opened?.messages[0]?.id;
    const explained = message === undefined ? null : await explainMessage(tray.deps, desk.lead, message);
    expect(opened?.docket.standing.kind).toBe("settled");
    expect(explained?.rules.map(({ rule, verdict }) => [rule.name, verdict])).toEqual([
      ["Invoices", "forIt"],
      ["Patches", "forIt"],
    ]);
    expect(explained?.subject).toEqual([
      { text: "An ", hit: false },
      { text: "invoice", hit: true },
    ]);
  });
});
