import { done, refusal, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { address, testTray } from "@tests/support/test-database";
import { afterAll, expect, it } from "vitest";
import { type MessageId, trustedId } from "../../core/kernel/ids";
import { readAsHtml, receiveMessage, trustRemoteOf } from "../index.server";

const tray = await testTray();
const desk = await setUpDesk(tray);
afterAll(() => tray.close());

const HTML = { "MIME-Version": "1.0", "Content-Type": "text/html" };
const recipients = [address("office@ottermoor.example")];
async function arrives(id: string, isVerified: boolean): Promise<MessageId> {
  const raw = aMessage({
    id,
    from: "Shop <news@shop.example>",
    headers: HTML,
    body: '<img src="https://pictures.example/a.png">',
  });
  done({ ok: true, value: await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients }) });
  const verdict = isVerified ? "verified" : "unverified";
  const [row] = await tray.ask(
    "update message set trust = jsonb_build_object('verdict', $2::text, 'reason', '') where message_id = $1 returning id",
    [id, verdict],
  );
  return trustedId<MessageId>(row.id);
}
const asked = { asksForRemote: false, locale: "en" };
const shows = async (id: MessageId) => (await readAsHtml(tray.deps, desk.lead, id, asked))?.showsRemote;

it("pictures are always shown of a sender who proves to be the one, and not of who writes the same name", async () => {
  const [forged, proved] = [await arrives("forged@x.example", false), await arrives("proved@x.example", true)];
  expect(refusal(await trustRemoteOf(tray.deps, desk.lead, forged))).toBe("sender-not-verified");
  expect([await shows(forged), await shows(proved)]).toEqual([false, false]);
  done(await trustRemoteOf(tray.deps, desk.lead, proved));
  expect([await shows(forged), await shows(proved)]).toEqual([false, true]);
});
