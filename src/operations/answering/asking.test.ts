import { type Desk, done } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { passes, testTray } from "@tests/support/test-database";
import { HALSE, MARL, setUpWaiting, VANE } from "@tests/support/waiting-office";
import { afterAll, describe, expect, it } from "vitest";
import { dateOf, later, MINUTE } from "../../core/kernel/instant";
import { possibleParentInWords } from "../../core/threading/possible-parent";
import {
  advanceDemoClock,
  answerConversation,
  datesToOffer,
  editContact,
  getCallScript,
  getPossibleParent,
  getTextSuggestions,
  joinConversations,
  openConversation,
  understandDate,
} from "../index.server";

const tray = await testTray();
const office = await setUpWaiting(tray);
const { desk } = office;
afterAll(() => tray.close());

describe("an answer that is written", () => {
  it("begins as its writer chose for the same person the last time, and hers alone", async () => {
    const id = await desk.arrive({ subject: "Habit", from: MARL });
    const habitOf = async (who: Desk["lead"]) => (await openConversation(tray.deps, who, id))?.habit;
    expect(await habitOf(desk.lead)).toBeNull();
    passes(tray, 1);
    const to = [{ name: "", address: MARL }];
    const answer = { to, cc: [], subject: "Re", html: "<p>Yes.</p>" };
    done(await answerConversation(tray.deps, desk.lead, desk.ines, id, { ...answer, after: { kind: "settle" } }));
    expect(await habitOf(desk.lead)).toEqual({ after: "settle", whom: "any" });
    expect(await habitOf(desk.tobiasGrant)).toBeNull();
    const after = { kind: "expect", until: null, whom: "house" } as const;
    done(await answerConversation(tray.deps, desk.lead, desk.ines, id, { ...answer, after }));
    expect(await habitOf(desk.lead)).toEqual({ after: "expect", whom: "house" });
  });

  it("is told by when whoever gets it usually answers, once that is known", async () => {
    const id = await desk.arrive({ subject: "Usual", from: HALSE });
    expect((await getTextSuggestions(tray.deps, desk.lead, "Is it dry?", HALSE)).usuallyBy).toBeNull();
    for (let round = 0; round < 5; round += 1) await office.comes(HALSE, await office.asks(id, [HALSE]));
    const { usuallyBy } = await getTextSuggestions(tray.deps, desk.lead, "Is it dry?", HALSE);
    expect(usuallyBy).toBe(office.now() + 120_000);
    const offers = await datesToOffer(tray.deps, desk.lead, id, "closes", true);
    expect(inEnglish(offers[0])).toEqual({ label: "as they usually take", at: usuallyBy });
    expect(inEnglish((await datesToOffer(tray.deps, desk.lead, id, "closes")).map(({ label }) => label))).not.toContain(
      "as they usually take",
    );
  });

  it("is told both readings of a date that has two", async () => {
    const { asks } = await getTextSuggestions(tray.deps, desk.lead, "Please send it by 3/12.");
    expect(asks.map(({ date }) => [date?.at, date?.other])).toEqual([
      [Date.UTC(2026, 11, 3, 17), Date.UTC(2027, 2, 12, 17)],
    ]);
    const meant = done(await understandDate(tray.deps, desk.lead, "3/12", "closes"));
    expect(meant).toEqual({ at: Date.UTC(2026, 11, 3, 17), other: Date.UTC(2027, 2, 12, 17) });
  });
});

describe("a call instead", () => {
  it("is prepared with whom, the number, and what we asked", async () => {
    const contact = { name: "Perpetua Vane", organisation: "Vane House", note: "", categoryIds: [] };
    done(await editContact(tray.deps, desk.lead, null, { ...contact, phone: "0555 019 301", addresses: VANE }));
    const id = await desk.arrive({ subject: "Key", from: VANE });
    passes(tray, 1);
    const answer = { to: [{ name: "", address: VANE }], cc: [], subject: "Re: Key", html: "<p>Where is the key?</p>" };
    const after = { kind: "expect", until: null } as const;
    done(await answerConversation(tray.deps, desk.lead, desk.ines, id, { ...answer, after }));
    expect(inEnglish(await getCallScript(tray.deps, desk.lead, id))?.join("\n")).toBe(
      "Call Perpetua Vane (Vane House), 0555 019 301\n- ask: Where is the key?\n- said: ",
    );
    const bare = await desk.arrive({ subject: "Floor", from: HALSE });
    expect(inEnglish(await getCallScript(tray.deps, desk.lead, bare))?.join("\n")).toContain(
      "number not known\n- ask: what became of “Floor”?",
    );
  });
});

describe("a letter that begins anew", () => {
  it("is offered as the answer to what was asked elsewhere, where it quotes or names it, and joined there is one", async () => {
    const asked = await desk.arrive({ subject: "Timber for the impost", from: MARL });
    await office.asks(asked, [MARL, HALSE], { whom: "each" });
    const about = async (from: string, subject: string, body = "Here it is.") => {
      const date = dateOf(later(office.now(), MINUTE)).toUTCString();
      const id = await desk.arrive({ from, subject, body, date });
      const found = await getPossibleParent(tray.deps, desk.lead, id);
      return { id, why: found.map(({ conversationId, reason }) => [conversationId, possibleParentInWords(reason)]) };
    };
    const anew = await about(MARL, "About timber for the impost");
    expect(inEnglish(anew.why)).toEqual([[asked, "it names its subject"]]);
    expect((await about(HALSE, "Fwd: Timber for the impost, at last")).why).toHaveLength(1);
    expect((await about(MARL, "Something else")).why).toEqual([]);
    expect((await about(VANE, "About timber for the impost")).why).toEqual([]);
    expect((await office.stateOf(asked)).slice(2)).toEqual(["open"]);
    passes(tray, 1);
    done(await joinConversations(tray.deps, desk.lead, asked, anew.id));
    expect((await office.stateOf(asked)).slice(2)).toEqual(["in-part"]);
  });
});

describe("time", () => {
  it("is let pass in the demo alone, by those who decide", async () => {
    const passed: number[] = [];
    const demo = { ...tray.deps, passTime: (ms: number) => void passed.push(ms) };
    expect((await advanceDemoClock(demo, desk.lead, "hour")).ok).toBe(true);
    tray.clock.now = Date.UTC(2026, 11, 4, 18) as typeof tray.clock.now;
    expect((await advanceDemoClock(demo, desk.lead, "opening")).ok).toBe(true);
    expect(passed).toEqual([3_600_000, (2 * 24 + 14) * 3_600_000 + 60_000]);
    expect(await advanceDemoClock({ ...demo, passTime: null }, desk.lead, "hour")).toEqual({
      ok: false,
      error: { kind: "real-clock" },
    });
    expect(await advanceDemoClock(demo, desk.reader, "hour")).toEqual({
      ok: false,
      error: { kind: "readers-only-read" },
    });
  });
});
