import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { address, passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type DraftId, trustedId } from "../../core/kernel/ids";
import type { Draft } from "../../core/writing/draft";
import {
  answerConversation,
  getDrafts,
  getOwnDraft,
  handDraft,
  keepDraft,
  openConversation,
  startConversation,
  THROWN_AWAY_DAYS,
  throwDraftAway,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

const draft = (html: string, more: Partial<Draft> = {}): Draft => ({
  ...{ to: "Petra <petra@new.example>", cc: "", subject: "First", html, after: "keep", day: "", ...more },
});
const newId = () => trustedId<DraftId>(tray.deps.newId());
type Kept = { readonly id: DraftId; readonly version?: number; readonly in?: ConversationId | null };
const keeps = async (html: string, { id, version = 0, in: conversationId = null }: Kept, grant = desk.lead) =>
  done(await keepDraft(tray.deps, grant, { id, version, conversationId, content: draft(html) }));
const listed = async (grant = desk.lead) =>
  (await getDrafts(tray.deps, grant)).map(({ id, content, state }) => [id, content.html, state]);

describe("a draft of one's own", () => {
  it("is kept version by version, and once where it is kept again", async () => {
    const id = newId();
    expect(await keeps("One", { id })).toEqual({ kind: "kept", version: 1 });
    expect(await keeps("One more", { id, version: 1 })).toEqual({ kind: "kept", version: 2 });
    expect(await keeps("One", { id })).toMatchObject({
      kind: "differs",
      there: { version: 2, content: draft("One more") },
    });
    expect(await getOwnDraft(tray.deps, desk.lead, id)).toMatchObject({ version: 2, conversationId: null });
    expect(await listed()).toContainEqual([id, "One more", "own"]);
  });

  it("says what another device wrote instead of writing over it", async () => {
    const id = newId();
    await keeps("Begun", { id });
    const [one, other] = await Promise.all([
      keeps("On the desk", { id, version: 1 }),
      keeps("On the telephone", { id, version: 1 }),
    ]);
    expect([one.kind, other.kind].toSorted()).toEqual(["differs", "kept"]);
    const words = one.kind === "kept" ? "On the desk" : "On the telephone";
    expect([one, other].find(({ kind }) => kind === "differs")).toMatchObject({ there: { content: draft(words) } });
  });

  it("is nobody else's, neither to read nor to write over nor to throw away", async () => {
    const id = newId();
    await keeps("Hers", { id });
    expect(await getOwnDraft(tray.deps, desk.maraGrant, id)).toBeNull();
    expect(await listed(desk.maraGrant)).toEqual([]);
    for (const version of [0, 1])
      expect(await keeps("His", { id, version }, desk.maraGrant)).toEqual({ kind: "differs", there: null });
    expect(refusal(await throwDraftAway(tray.deps, desk.maraGrant, id, true))).toBe("no-such");
    expect((await getOwnDraft(tray.deps, desk.lead, id))?.content.html).toBe("Hers");
    const reads = { id: newId(), conversationId: null, version: 0, content: draft("No") };
    expect(refusal(await keepDraft(tray.deps, desk.reader, reads))).toBe("readers-only-read");
    const elsewhere = { ...reads, conversationId: trustedId<ConversationId>(tray.deps.newId()) };
    expect(refusal(await keepDraft(tray.deps, desk.lead, elsewhere))).toBe("no-such-conversation");
  });

  it("stands with its conversation, and there for its writer alone", async () => {
    const conversation = await desk.arrive({ subject: "Middle C sticks" });
    const id = newId();
    await keeps("We come on Friday.", { id, in: conversation });
    const [own] = (await openConversation(tray.deps, desk.lead, conversation))?.ownDrafts ?? [];
    expect(own).toMatchObject({ id, version: 1, content: { html: "We come on Friday." } });
    expect((await openConversation(tray.deps, desk.maraGrant, conversation))?.ownDrafts).toEqual([]);
    const row = (await getDrafts(tray.deps, desk.lead)).find((one) => one.id === id);
    expect(row?.conversation).toEqual({ subject: "Middle C sticks", standing: "to-sort" });
  });

  it("is thrown away, and brought back within its days", async () => {
    const id = newId();
    await keeps("Away with it", { id });
    done(await throwDraftAway(tray.deps, desk.lead, id, true));
    expect(await keeps("Still typed", { id, version: 1 })).toEqual({ kind: "differs", there: null });
    expect(await listed()).toContainEqual([id, "Away with it", "given-up"]);
    done(await throwDraftAway(tray.deps, desk.lead, id, false));
    expect((await getOwnDraft(tray.deps, desk.lead, id))?.version).toBe(3);
    done(await throwDraftAway(tray.deps, desk.lead, id, true));
    passes(tray, (THROWN_AWAY_DAYS + 1) * 24 * 60);
    expect((await listed()).map(([one]) => one)).not.toContain(id);
  });

  it("ends with the message that it was, an answer or a first one", async () => {
    const conversation = await desk.arrive();
    const [first, answer] = [newId(), newId()];
    await keeps("Good morning", { id: first });
    await keeps("Yes", { id: answer, in: conversation });
    const to = [{ name: "", address: address("petra@new.example") }];
    const letter = { to, cc: [], subject: "First", html: "<p>Good morning</p>", after: { kind: "keep" } as const };
    done(await startConversation(tray.deps, desk.lead, desk.ines, { ...letter, ownDraft: first }));
    done(await answerConversation(tray.deps, desk.lead, desk.ines, conversation, { ...letter, ownDraft: answer }));
    const ids = (await listed()).map(([one]) => one);
    expect([ids.includes(first), ids.includes(answer)]).toEqual([false, false]);
    expect(await keeps("Too late", { id: answer, version: 1 })).toEqual({ kind: "differs", there: null });
    // One that is still on its way when its message goes.
    const late = newId();
    done(await startConversation(tray.deps, desk.lead, desk.ines, { ...letter, ownDraft: late }));
    expect(await keeps("Good morning", { id: late })).toEqual({ kind: "differs", there: null });
  });

  it("stays where its message is refused", async () => {
    const id = newId();
    await keeps("Nobody", { id });
    const letter = {
      to: [],
      cc: [],
      subject: "First",
      html: "<p>x</p>",
      after: { kind: "keep" } as const,
      ownDraft: id,
    };
    expect(refusal(await startConversation(tray.deps, desk.lead, desk.ines, letter))).toBe("no-recipient");
    expect((await getOwnDraft(tray.deps, desk.lead, id))?.version).toBe(1);
  });

  it("becomes the one that is shared, where it is handed over", async () => {
    const conversation = await desk.arrive();
    const id = newId();
    await keeps("Please check", { id, in: conversation });
    const given = { content: draft("Please check this"), to: desk.mara.id, note: "", seen: null, ownDraft: id };
    expect(done(await handDraft(tray.deps, desk.lead, conversation, given))).toBe(id);
    const open = await openConversation(tray.deps, desk.maraGrant, conversation);
    expect(open?.drafts).toMatchObject([{ id, version: 2, holderId: desk.mara.id, state: "to-check" }]);
    expect((await openConversation(tray.deps, desk.lead, conversation))?.ownDrafts).toEqual([]);
    for (const grant of [desk.lead, desk.maraGrant])
      expect(await listed(grant)).toContainEqual([id, expect.anything(), "to-check"]);
    expect(await keeps("Too late", { id, version: 1 })).toEqual({ kind: "differs", there: null });
  });
});
