import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { addressed, worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { ConversationId, RoundId } from "../../core/kernel/ids";
import { instant } from "../../core/kernel/instant";
import { readFilter } from "../../core/lists/filter";
import { USUAL_VIEW } from "../../core/lists/sheet-view";
import {
  decide,
  dropRound,
  editRound,
  editRule,
  getRounds,
  getStoppedRules,
  letRoundIn,
  listConversations,
  openConversation,
  openRounds,
  type RuleDraft,
  setUpHours,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let round: RoundId;
let rule: RuleDraft;

beforeEach(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  // A Monday.
  tray.clock.now = instant(Date.parse("2026-11-02T09:00:00Z"));
  round = done(await editRound(tray.deps, desk.lead, null, { name: "Mass mail", times: "11:00, 16:00" }));
  rule = {
    id: null,
    name: "Ping",
    isOn: true,
    isLast: false,
    condition: addressed("from", "@ping.example"),
    exception: worded("subject", "words", "urgent"),
    actions: [{ kind: "hold", roundId: round }],
  };
  rule = { ...rule, id: done(await editRule(tray.deps, desk.lead, rule)) };
  passes(tray, 1);
});
afterEach(() => tray.close());

const ping = (given: Parameters<Desk["arrive"]>[0] = {}) => desk.arrive({ from: "list@ping.example", ...given });
const standingOf = async (id: ConversationId) => (await desk.isNow(id)).standing;
const until = (text: string) => {
  tray.clock.now = instant(Date.parse(text));
};

describe("a round", () => {
  it("keeps what a rule holds out of sight until its hour, and lets it in together", async () => {
    const [one, other, urgent, letter] = [
      await ping(),
      await ping(),
      await ping({ subject: "Urgent: the bellows" }),
      await desk.arrive(),
    ];
    expect(await Promise.all([one, other, urgent, letter].map(standingOf))).toEqual([
      "held",
      "held",
      "to-sort",
      "to-sort",
    ]);
    expect(await getRounds(tray.deps, desk.lead)).toMatchObject([{ name: "Mass mail", count: 2, rules: ["Ping"] }]);
    const lists = await Promise.all(
      (["to-sort", "open", "held"] as const).map((scope) =>
        listConversations(tray.deps, desk.lead, desk.ines, {
          scope,
          filter: readFilter(new URLSearchParams()),
          view: USUAL_VIEW,
        }),
      ),
    );
    expect(lists.map(({ total }) => total)).toEqual([2, 2, 2]);
    expect(await tray.ask("select * from notification where conversation_id = any($1)", [[one, other]])).toEqual([]);
    until("2026-11-02T10:59:59Z");
    expect(await openRounds(tray.deps)).toBe(0);
    until("2026-11-02T11:00:00Z");
    // Two processes look at once.
    await Promise.all([openRounds(tray.deps), openRounds(tray.deps)]);
    expect(await Promise.all([one, other].map(standingOf))).toEqual(["to-sort", "to-sort"]);
    const told = await tray.ask("select count(*)::int as count from journal where kind = 'let-in'");
    expect(told).toEqual([{ count: 2 }]);
    expect(await openRounds(tray.deps)).toBe(0);
  });

  it("lets in at once what it held while nobody looked, and holds on what came after its hour", async () => {
    const one = await ping();
    until("2026-11-02T12:00:00Z");
    const late = await ping();
    expect(await openRounds(tray.deps)).toBe(1);
    expect([await standingOf(one), await standingOf(late)]).toEqual(["to-sort", "held"]);
  });

  it("waits over a weekend and a holiday, and not for a day that is one no more", async () => {
    until("2026-11-06T17:00:00Z");
    const one = await ping();
    const week = Array(5).fill({ from: 480, to: 1020 }).concat([null, null]);
    const hours = { week, holidays: ["2026-11-09"], answerWithin: 16 };
    done(await setUpHours(tray.deps, desk.lead, hours));
    until("2026-11-09T12:00:00Z");
    expect(await openRounds(tray.deps)).toBe(0);
    done(await setUpHours(tray.deps, desk.lead, { ...hours, holidays: [] }));
    expect(await openRounds(tray.deps)).toBe(1);
    expect(await standingOf(one)).toBe("to-sort");
  });

  it("is opened by hand, for one or for all of it, and taken back", async () => {
    const [one, other] = [await ping(), await ping()];
    const batch = done(
      await decide(tray.deps, desk.lead, { ids: [one], seenVersion: null }, { kind: "let-in" }),
    ).batchId;
    expect([await standingOf(one), await standingOf(other)]).toEqual(["to-sort", "held"]);
    done(await undoBatch(tray.deps, desk.lead, batch));
    expect(await standingOf(one)).toBe("held");
    done(await letRoundIn(tray.deps, desk.lead, round));
    expect([await standingOf(one), await standingOf(other)]).toEqual(["to-sort", "to-sort"]);
    expect(refusal(await letRoundIn(tray.deps, desk.lead, round))).toBe("nothing-chosen");
    expect(refusal(await letRoundIn(tray.deps, { ...desk.lead, role: "reader" }, round))).toBe("readers-only-read");
  });

  it("keeps holding a thread that goes on, with its first message, and brings in what is excepted", async () => {
    const one = await ping();
    passes(tray, 30);
    await ping({ into: one, subject: "Re: more" });
    expect(await openConversation(tray.deps, desk.lead, one)).toMatchObject({
      docket: { standing: { kind: "held", since: instant(Date.parse("2026-11-02T09:06:00Z")) } },
    });
    await ping({ into: one, subject: "Re: urgent" });
    expect(await standingOf(one)).toBe("to-sort");
    // What is in sight stays there.
    await ping({ into: one, subject: "Re: more" });
    expect(await standingOf(one)).toBe("to-sort");
  });

  it("lets everything in when it is removed, and stops the rules that hold for it", async () => {
    const one = await ping();
    expect(refusal(await dropRound(tray.deps, { ...desk.lead, role: "member" }, round, true))).toBe("leads-only");
    done(await dropRound(tray.deps, desk.lead, round, true));
    expect(await standingOf(one)).toBe("to-sort");
    expect([...(await getStoppedRules(tray.deps, desk.lead)).values()]).toEqual([["rounds"]]);
    passes(tray, 1);
    expect(await standingOf(await ping())).toBe("to-sort");
    done(await dropRound(tray.deps, desk.lead, round, false));
    passes(tray, 1);
    expect(await standingOf(await ping())).toBe("held");
  });

  it("is kept only with what it needs, and by those who lead the tray", async () => {
    const edited = (name: string, times: string) => editRound(tray.deps, desk.lead, null, { name, times });
    expect(refusal(await edited("mass mail", "11:00"))).toBe("round-problems");
    expect(refusal(await edited("Late", "noon"))).toBe("round-problems");
    const id = done(await edited("Late", "17:00"));
    expect(refusal(await editRound(tray.deps, desk.lead, id, { name: "Late", times: "17:30" }))).toBe("done");
    expect((await getRounds(tray.deps, desk.lead)).map(({ name, times }) => [name, times])).toEqual([
      ["Late", [1050]],
      ["Mass mail", [660, 960]],
    ]);
    expect(refusal(await editRule(tray.deps, desk.lead, { ...rule, actions: [{ kind: "hold", roundId: id }] }))).toBe(
      "done",
    );
    const elsewhere = {
      ...rule,
      actions: [{ kind: "hold" as const, roundId: "01900000-0000-7000-8000-000000000000" as RoundId }],
    };
    expect(refusal(await editRule(tray.deps, desk.lead, elsewhere))).toBe("no-such");
  });
});
