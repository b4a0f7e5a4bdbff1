import { done, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { address, testTray } from "@tests/support/test-database";
import { afterAll, expect, it } from "vitest";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import { openConversation, receiveMessage, rememberShownPart } from "../index.server";

const tray = await testTray();
const desk = await setUpDesk(tray);
afterAll(() => tray.close());

async function arrives(id: string, from: string, type: string, body: string): Promise<ConversationId> {
  const raw = aMessage({ id, from, headers: { "MIME-Version": "1.0", "Content-Type": type }, body });
  const recipients = [address("office@ottermoor.example")];
  done({ ok: true, value: await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients }) });
  const [row] = await tray.ask("select conversation_id from message where message_id = $1", [id]);
  return trustedId<ConversationId>(row.conversation_id);
}
const shown = async (grant: typeof desk.lead, id: ConversationId) =>
  (await openConversation(tray.deps, grant, id, "ahead"))?.messages[0];

it("a message is shown in the part that says more, until a member chooses otherwise for its sender", async () => {
  const table = "<table><tr><td>Pipes</td><td>12</td></tr><tr><td>Bellows</td><td>2</td></tr></table>";
  const first = await arrives("first@shop.example", "Shop <news@shop.example>", "text/html", table);
  const plain = await arrives("plain@vane.example", "Vane <vane@vane.example>", "text/plain", "The bellows leak.");
  expect([await shown(desk.lead, first), await shown(desk.lead, plain)]).toMatchObject([
    { shownPart: "html" },
    { shownPart: "text" },
  ]);
  const message = (await shown(desk.lead, first))?.id as MessageId;
  expect(await rememberShownPart(tray.deps, desk.lead, message, "text")).toBe(true);
  const second = await arrives("second@shop.example", "Shop <news@shop.example>", "text/html", table);
  expect((await shown(desk.lead, second))?.shownPart).toBe("text");
  expect((await shown(desk.maraGrant, second))?.shownPart).toBe("html");
  expect(await rememberShownPart(tray.deps, desk.lead, message, "html")).toBe(true);
  expect((await shown(desk.lead, second))?.shownPart).toBe("html");
});

it("what stands in its calendar part comes with it", async () => {
  const calendar =
    "BEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Tuning\r\nDTSTART:20261124T100000Z\r\nEND:VEVENT\r\nEND:VCALENDAR";
  const id = await arrives("call@vane.example", "Vane <vane@vane.example>", "text/calendar; method=REQUEST", calendar);
  expect(await shown(desk.lead, id)).toMatchObject({
    kind: "calendar",
    ownText: "Tuning",
    appointments: [{ summary: "Tuning" }],
  });
});
