import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { address, passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Mailbox } from "../../core/kernel/email-address";
import { MINUTE } from "../../core/kernel/instant";
import {
  type Answer,
  checkRecipients,
  editContact,
  findRecipients,
  type LetterInHand,
  startConversation,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  await desk.arrive({ from: "Perpetua Vane <perpetua@vanehouse.example>" });
  await sends([OTTO, CORVIN]);
  await sends([OTTO, CORVIN], { bcc: [HIDDEN] });
  await sends([OTTO]);
  const contact = { name: "Leocadia Thrane", organisation: "Heritage Office", phone: "", note: "", categoryIds: [] };
  done(await editContact(tray.deps, desk.lead, null, { ...contact, addresses: "casework@calder.example" }));
});
afterAll(() => tray.close());

const box = (text: string, name = ""): Mailbox => ({ name, address: address(text) });
const [OTTO, CORVIN, HIDDEN] = [
  box("otto@quayle.example"),
  box("corvin@spelterworks.example"),
  box("hidden@elsewhere.example"),
];

async function sends(to: readonly Mailbox[], more: Partial<Answer> = {}) {
  passes(tray, 1);
  const letter: Answer = { to, cc: [], subject: "News", html: "<p>We come.</p>", after: { kind: "keep" }, ...more };
  return done(await startConversation(tray.deps, desk.lead, desk.ines, letter));
}
const found = async (typed: string, taken: readonly Mailbox[] = []) =>
  (
    await findRecipients(
      tray.deps,
      desk.lead,
      typed,
      taken.map((one) => one.address),
    )
  ).people.map((one) => one.address);

describe("whom a message could go to", () => {
  it("is everybody the tray wrote to or heard from, its contacts, and who was there together", async () => {
    expect(await found("perp")).toEqual(["perpetua@vanehouse.example"]);
    expect(await found("heritage")).toEqual(["casework@calder.example"]);
    expect(await found("hidden")).toEqual(["hidden@elsewhere.example"]);
    expect(await found("office@")).toEqual([]);
    expect(await found("", [OTTO])).toEqual(["corvin@spelterworks.example", "hidden@elsewhere.example"]);
  });

  it("is what it was a moment ago, and somebody new once that was looked up again behind it", async () => {
    await sends([box("new@address.example")]);
    expect(await found("new@")).toEqual([]);
    tray.clock.now = (tray.clock.now + MINUTE) as typeof tray.clock.now;
    await expect.poll(() => found("new@")).toEqual(["new@address.example"]);
  });
});

describe("a message", () => {
  it("names those in Bcc in no copy, and reaches them", async () => {
    const { messageId } = await sends([OTTO], { bcc: [HIDDEN] });
    const [{ raw }] = await tray.ask(
      "select convert_from(content, 'utf8') as raw from message join blob on sha256 = raw_sha256 where id = $1",
      [messageId],
    );
    expect(raw).not.toMatch(/hidden@elsewhere|^bcc/im);
    const reached = await tray.ask("select address from outgoing_recipient where message_id = $1", [messageId]);
    expect(reached.map((row: { address: string }) => row.address).toSorted()).toEqual([
      "hidden@elsewhere.example",
      "otto@quayle.example",
    ]);
  });

  it("is looked at before it goes: an address like a known one, who was there before, the code of another's record", async () => {
    const record = await desk.opensRecord("Case of Vane House", { addresses: "perpetua@vanehouse.example" });
    const warned = async (part: Partial<LetterInHand>) => {
      const letter = { conversationId: null, to: [], cc: [], bcc: [], subject: "", text: "", recordCode: "", ...part };
      return (await checkRecipients(tray.deps, desk.lead, letter)).map(({ kind }) => kind);
    };
    expect(await warned({ to: [box("otto@quayel.example")] })).toEqual(["looks-like"]);
    const about = `As for ${record.code}, we come.`;
    expect(await warned({ to: [OTTO], text: about })).toEqual(["foreign-code"]);
    expect(await warned({ to: [box("perpetua@vanehouse.example")], text: about })).toEqual([]);
    expect(await warned({ to: [OTTO], text: about, recordCode: record.code })).toEqual([]);
    const others = ["a@one.example", "b@two.example"].map((one) => box(one));
    const { conversationId } = await sends([OTTO, ...others]);
    expect(await warned({ conversationId, to: [OTTO] })).toEqual(["left-out"]);
  });
});
