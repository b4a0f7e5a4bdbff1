import { done, refusal } from "@tests/support/desk";
import { aBounce } from "@tests/support/mail";
import { address, passes, testTray } from "@tests/support/test-database";
import { HALSE, MARL, setUpWaiting, VANE } from "@tests/support/waiting-office";
import { afterAll, describe, expect, it } from "vitest";
import { type ConversationId, type ExpectationId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, later, MINUTE, readInstant } from "../../core/kernel/instant";
import {
  answerConversation,
  decide,
  editContact,
  examine,
  getTextSuggestions,
  joinConversations,
  openConversation,
  receiveMessage,
  undoBatch,
} from "../index.server";

const tray = await testTray();
const office = await setUpWaiting(tray);
const { desk, now, docketOf, stateOf, asks, comes } = office;
afterAll(() => tray.close());

describe("an expectation", () => {
  it("of each waits for the last of them, through an absence, and comes back to its owner", async () => {
    const id = await desk.arrive({ subject: "Tin" });
    await desk.does(desk.lead, id, { kind: "assign", ownerId: desk.tobias.id });
    const asked = await asks(id, [VANE, MARL, HALSE], { whom: "each" });
    await comes(VANE, asked);
    await comes(HALSE, asked, {
      headers: { "Auto-Submitted": "auto-replied" },
      body: "I am out of the office and back on Monday, 30 November.",
    });
    expect(await stateOf(id)).toEqual(["waiting", "us", "in-part"]);
    expect((await docketOf(id)).expectedAt).toBe(readInstant("2026-11-30T17:00:00Z"));
    await comes(MARL, asked);
    expect(await stateOf(id)).toEqual(["waiting", "us", "in-part"]);
    await comes(HALSE, asked);
    expect(await stateOf(id)).toEqual(["our-move", "us", "answered"]);
    expect((await docketOf(id)).ownerId).toBe(desk.tobias.id);
  });

  it("is answered from another address of a contact, also one that comes to be known later", async () => {
    const contact = { name: "Marl", organisation: "", phone: "", note: "", categoryIds: [] };
    const kept = done(
      await editContact(tray.deps, desk.lead, null, { ...contact, addresses: `${MARL}, marl@telephone.example` }),
    );
    const id = await desk.arrive({ subject: "Oak", from: MARL });
    await comes("marl@telephone.example", await asks(id, [MARL]));
    expect(await stateOf(id)).toEqual(["our-move", "us", "answered"]);
    const other = await desk.arrive({ subject: "More oak", from: MARL });
    await comes("daughter@marljoiners.example", await asks(other, [MARL]));
    expect(await stateOf(other)).toEqual(["our-move", "us", "open"]);
    passes(tray, 1);
    const addresses = [...kept.addresses, "daughter@marljoiners.example"].join(" ");
    done(await editContact(tray.deps, desk.lead, kept.id, { ...contact, addresses }));
    expect(await stateOf(other)).toEqual(["our-move", "us", "answered"]);
  });

  it("of a house is answered by anybody there, and ends when nobody can be reached", async () => {
    const id = await desk.arrive({ subject: "Policy", from: HALSE });
    await comes("claims@mutualhalse.example", await asks(id, [HALSE], { whom: "house" }));
    expect(await stateOf(id)).toEqual(["our-move", "us", "answered"]);
    const lost = await desk.arrive({ subject: "Lost" });
    const asked = await asks(lost, [VANE]);
    const recipients = [address("office@ottermoor.example")];
    const raw = aBounce({ of: asked, recipient: VANE, id: "b1@x.example" });
    await receiveMessage(tray.deps, { raw, envelopeSender: "", recipients });
    expect(await stateOf(lost)).toEqual(["our-move", "us", "impossible"]);
  });

  it("goes on after a mere acknowledgement, is extended, withdrawn and undone", async () => {
    const id = await desk.arrive({ subject: "Drawings" });
    await comes(VANE, await asks(id, [VANE]), { body: "Thanks, will do." });
    expect(await stateOf(id)).toEqual(["our-move", "us", "answered"]);
    const [batch] = await desk.does(desk.lead, id, { kind: "acknowledge", messageId: null });
    expect(await stateOf(id)).toEqual(["waiting", "them", "open"]);
    done(await undoBatch(tray.deps, desk.lead, batch ?? trustedId("")));
    expect(await stateOf(id)).toEqual(["our-move", "us", "answered"]);
    await desk.does(desk.lead, id, { kind: "acknowledge", messageId: null });
    const [one] = (await docketOf(id)).expectations;
    const expectationId = one?.id ?? trustedId<ExpectationId>("");
    const until = later(now(), 9 * DAY);
    await desk.does(desk.lead, id, { kind: "extend", expectationId, until });
    const { expectedAt, standing } = await docketOf(id);
    expect(expectedAt).toBe(until);
    expect(standing.reason).toMatchObject({ kind: "asked", until: expectedAt });
    await desk.does(desk.lead, id, { kind: "withdraw", expectationId });
    expect(await stateOf(id)).toEqual(["our-move", "them", "withdrawn"]);
    const past = { kind: "extend", expectationId, until: later(now(), -DAY) } as const;
    expect(refusal(await decide(tray.deps, desk.lead, { ids: [id], seenVersion: null }, past))).toBe("date-is-past");
  });

  it("of a colleague is met by her note; no answer needed settles, until somebody writes", async () => {
    const id = await desk.arrive({ subject: "Inside" });
    const expectationId = trustedId<ExpectationId>(tray.deps.newId());
    await desk.does(desk.lead, id, { kind: "expect", until: null, expectationId, colleagueId: desk.tobias.id });
    expect(await stateOf(id)).toEqual(["waiting", "us", "open"]);
    await desk.does(desk.tobiasGrant, id, { kind: "note", text: "It is the belt." });
    expect((await stateOf(id)).slice(1)).toEqual(["us", "answered"]);
    await desk.does(desk.lead, id, { kind: "no-answer" });
    expect((await stateOf(id)).slice(0, 2)).toEqual(["settled", "nobody"]);
    await desk.arrive({ into: id, subject: "Re: Inside", date: dateOf(later(now(), MINUTE)).toUTCString() });
    expect((await stateOf(id)).slice(0, 2)).toEqual(["to-sort", "us"]);
  });

  it("stays with its messages when they are joined to another conversation", async () => {
    const [one, two] = [await desk.arrive({ subject: "One" }), await desk.arrive({ subject: "Two" })];
    const asked = await asks(two, [VANE]);
    passes(tray, 1);
    done(await joinConversations(tray.deps, desk.lead, one, two));
    await comes(VANE, asked);
    expect((await docketOf(one)).expectations.map(({ state }) => state)).toEqual(["answered"]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });
});

describe("a draft", () => {
  it("says what it asks and promises, and what is promised becomes a follow-up with it", async () => {
    const says = await getTextSuggestions(tray.deps, desk.lead, "I will send it by 4 December. Is the cellar dry?");
    expect(says.asks.map(({ text }) => text)).toEqual(["Is the cellar dry?"]);
    const [promise] = says.promises;
    expect(promise?.date?.at).toBe(readInstant("2026-12-04T17:00:00Z"));
    const id = await desk.arrive({ subject: "Cellar" });
    const promises = [{ text: promise?.text ?? "", dueAt: promise?.date?.at ?? null }];
    done(
      await answerConversation(tray.deps, desk.lead, desk.ines, id, {
        to: [{ name: "", address: VANE }],
        cc: [],
        subject: "Re",
        html: "<p>I will.</p>",
        after: { kind: "settle" },
        promises,
      }),
    );
    expect((await docketOf(id)).followUps).toMatchObject([{ text: promise?.text, dueAt: promise?.date?.at }]);
  });

  it("of theirs that promises something by a day is offered to be waited for", async () => {
    const open = async (id: ConversationId) => openConversation(tray.deps, desk.lead, id);
    const id = await desk.arrive({ subject: "Later", body: "We will come back to you by 4 December 2026." });
    expect((await open(id))?.promised?.text).toBe("We will come back to you by 4 December 2026.");
    const none = await desk.arrive({ subject: "Now", body: "The bellows are done." });
    expect((await open(none))?.promised).toBeNull();
  });
});
