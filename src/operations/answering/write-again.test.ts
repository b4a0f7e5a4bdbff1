import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { postOf } from "@tests/support/post-of";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import {
  answerConversation,
  attachFile,
  editAsNew,
  getOwnDraft,
  openConversation,
  recallMessage,
  sendToAnother,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
const { wentOut } = postOf(() => tray);

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

const SEXTON = { name: "Sexton", address: address("sexton@oldwyke.example") };
const corrected = { name: "", address: address("sexton@old-wyke.example") };

/** An answer with a file, and the conversation that it is in. */
async function writes(): Promise<{ readonly id: ConversationId; readonly messageId: MessageId }> {
  const id = await desk.arrive({ subject: "The harmonium" });
  const content = new TextEncoder().encode("a plan");
  const plan = done(
    await attachFile(tray.deps, desk.maraGrant, { name: "plan.txt", contentType: "text/plain", content }),
  );
  const sent = await answerConversation(tray.deps, desk.maraGrant, desk.mara, id, {
    ...{ to: [SEXTON], cc: [], subject: "Re: The harmonium", html: "<p>We come on <b>Friday</b>.</p>" },
    ...{ after: { kind: "expect", until: null }, enclosures: [plan.id] },
  });
  return { id, messageId: done(sent) };
}

describe("a message of ours", () => {
  it("is sent to another address with its words and files, in its conversation, and awaits an answer from there", async () => {
    const { id, messageId } = await writes();
    await wentOut();
    done(await sendToAnother(tray.deps, desk.tobiasGrant, desk.tobias, messageId, corrected));
    const [sent, ...more] = await wentOut();
    expect([sent?.to, more]).toEqual([[corrected.address], []]);
    expect(sent?.text).toContain("plan.txt");
    expect(sent?.text).toContain("We come on");
    expect(sent?.text).toMatch(/^Subject: Re: The harmonium/m);
    const open = await openConversation(tray.deps, desk.lead, id);
    expect(open?.messages.filter(({ direction }) => direction === "out")).toHaveLength(2);
    expect(open?.docket.expectations.at(-1)?.from).toEqual([corrected.address]);
    expect(open?.docket.standing.kind).toBe("waiting");
  });

  it("begins a new one that says the same, as a draft of whoever asks, and is left as it is", async () => {
    const { messageId } = await writes();
    const draft = done(await editAsNew(tray.deps, desk.tobiasGrant, messageId));
    const content = (await getOwnDraft(tray.deps, desk.tobiasGrant, draft))?.content;
    expect(content).toMatchObject({ to: "Sexton <sexton@oldwyke.example>", cc: "", subject: "Re: The harmonium" });
    expect(content?.html).toContain("<b>Friday</b>");
    expect(content?.enclosures?.map(({ name }) => name)).toEqual(["plan.txt"]);
    expect(await getOwnDraft(tray.deps, desk.maraGrant, draft)).toBeNull();
    // It can still be taken back, with the same words.
    expect(done(await recallMessage(tray.deps, desk.maraGrant, messageId)).enclosures).toHaveLength(1);
  });

  it("is nobody's to write again who only reads, and what came is none of ours", async () => {
    const { id, messageId } = await writes();
    const none = trustedId<MessageId>(tray.deps.newId());
    const came = (await openConversation(tray.deps, desk.lead, id))?.messages[0]?.id ?? none;
    expect(refusal(await editAsNew(tray.deps, desk.reader, messageId))).toBe("readers-only-read");
    expect(refusal(await editAsNew(tray.deps, desk.lead, came))).toBe("no-such");
    expect(refusal(await editAsNew(tray.deps, desk.lead, none))).toBe("no-such");
    const sends = (who: typeof desk.lead, message: MessageId) =>
      sendToAnother(tray.deps, who, desk.ines, message, corrected);
    expect(refusal(await sends(desk.reader, messageId))).toBe("readers-only-read");
    expect([refusal(await sends(desk.lead, came)), refusal(await sends(desk.lead, none))]).toEqual([
      "no-such",
      "no-such",
    ]);
  });
});
