import {
  aConversation,
  did,
  type Happening,
  hour,
  INES,
  TOBIAS,
  theyWrote,
  weWrote,
} from "@tests/support/a-conversation";
import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { Decision } from "../deciding/decision";
import { resultingStanding } from "../deciding/decision-shown";
import { planDecision } from "../deciding/plan-decision";
import { aspectOf } from "../journal/aspect";
import { effectInWords } from "../journal/effect-in-words";
import type { Effect } from "../journal/entry";
import { type FollowUpId, trustedId } from "../kernel/ids";
import type { Urgency } from "../kernel/urgency";
import { deriveDocket } from "./derive-docket";

const ONE = trustedId<FollowUpId>("one");
const TWO = trustedId<FollowUpId>("two");
const docketAfter = (...happenings: Happening[]) => deriveDocket(aConversation(theyWrote(), ...happenings));
const set = (followUpId: FollowUpId, dueAt: number | null, text = ""): Effect => ({
  kind: "follow-up-set",
  followUpId,
  forMember: INES,
  dueAt: dueAt === null ? null : hour(dueAt),
  text,
});
const done = (followUpId: FollowUpId): Effect => ({ kind: "follow-up-done", followUpId });
const cleared = (followUpId: FollowUpId): Effect => ({ kind: "follow-up-cleared", followUpId });

describe("the follow-ups of a docket", () => {
  const told = (...effects: Effect[]) => {
    const { followUps, followUpAt } = docketAfter(...effects.map((effect) => did(effect)));
    return [followUps.map(({ id, doneAt }) => `${id}${doneAt === null ? "" : " done"}`), followUpAt];
  };
  it.each<[string, Effect[], unknown]>([
    ["are none at first", [], [[], null]],
    ["are due by the earliest date of those that are open", [set(ONE, 90), set(TWO, 50)], [["one", "two"], hour(50)]],
    ["without a date are due never", [set(ONE, null)], [["one"], null]],
    [
      "that are done stay, and are due no more",
      [set(ONE, 50), set(TWO, 90), done(ONE)],
      [["one done", "two"], hour(90)],
    ],
    ["that are cleared are gone", [set(ONE, 50), cleared(ONE)], [[], null]],
    [
      "set again are open again, at their place",
      [set(ONE, 50), set(TWO, 60), done(ONE), set(ONE, 70)],
      [["one", "two"], hour(60)],
    ],
    ["that were never set cannot be done", [done(ONE)], [[], null]],
  ])("%s", (_, effects, expected) => expect(told(...effects)).toEqual(expected));

  it("leave the standing alone, and stand through answers", () => {
    const docket = docketAfter(did(set(ONE, 50)), weWrote(), theyWrote());
    expect([docket.standing.kind, docket.followUps.length]).toEqual(["to-sort", 1]);
  });
});

describe("urgency", () => {
  const urgency = (...steps: Urgency[]) =>
    docketAfter(...steps.map((one) => did({ kind: "urgency-set", urgency: one }))).urgency;
  it("is the usual one until it is set, then what was set last", () => {
    expect([urgency(), urgency("today"), urgency("today", "reading")]).toEqual(["no-rush", "today", "reading"]);
  });
});

describe("deciding about them", () => {
  const effects = (decision: Decision, ...happenings: Happening[]) =>
    planDecision(decision, aConversation(theyWrote(), ...happenings)).map(({ kind }) => kind);
  it.each<[string, Decision, Happening[], string[]]>([
    ["urgency that it has does nothing", { kind: "urgency", urgency: "no-rush" }, [], []],
    ["another urgency sets it", { kind: "urgency", urgency: "days" }, [], ["urgency-set"]],
    ["done is done once", { kind: "follow-up-done", followUpId: ONE }, [did(set(ONE, 50)), did(done(ONE))], []],
    ["done does what is open", { kind: "follow-up-done", followUpId: ONE }, [did(set(ONE, 50))], ["follow-up-done"]],
    ["nothing is cleared that is not there", { kind: "follow-up-clear", followUpId: ONE }, [], []],
    [
      "what is done can be cleared",
      { kind: "follow-up-clear", followUpId: ONE },
      [did(set(ONE, 9)), did(done(ONE))],
      ["follow-up-cleared"],
    ],
    ["junk is called so once", { kind: "junk" }, [did({ kind: "junked" })], []],
    ["a rest until somebody writes has no end", { kind: "rest", until: null }, [], ["rested"]],
  ])("%s", (_, decision, happenings, kinds) => expect(effects(decision, ...happenings)).toEqual(kinds));

  it("leads nowhere but for junk and rests", () => {
    expect(resultingStanding({ kind: "urgency", urgency: "today" }, "to-sort")).toBeNull();
    expect(
      resultingStanding({ kind: "follow-up", forMember: trustedId("m"), dueAt: null, text: "" }, "to-sort"),
    ).toBeNull();
    expect(resultingStanding({ kind: "junk" }, "to-sort")).toBe("junk");
    expect(resultingStanding({ kind: "rest", until: null }, "our-move")).toBe("resting");
  });
});

describe("in the journal", () => {
  const names = { member: () => "Tobias", category: () => "", record: () => "", day: () => "Fri" };
  it.each<[Effect, string]>([
    [{ kind: "urgency-set", urgency: "days" }, "set the urgency to Within days"],
    [set(ONE, 50), "set a follow-up for Fri"],
    [set(ONE, null), "set a follow-up"],
    [
      { kind: "follow-up-set", followUpId: ONE, forMember: TOBIAS, dueAt: null, text: "" },
      "set a follow-up for Tobias",
    ],
    [done(ONE), "did the follow-up"],
    [cleared(ONE), "cleared the follow-up"],
    [{ kind: "rested", until: null }, "put it to rest until somebody writes"],
    [{ kind: "rested", until: hour(9) }, "put it to rest until Fri"],
  ])("%j is told", (effect, words) => expect(inEnglish(effectInWords(effect, names, INES))).toBe(words));

  it("each follow-up is a matter of its own, and urgency another", () => {
    expect(aspectOf(set(ONE, 1))).toBe(aspectOf(done(ONE)));
    expect(aspectOf(set(ONE, 1))).not.toBe(aspectOf(set(TWO, 1)));
    expect(aspectOf({ kind: "urgency-set", urgency: "days" })).toBe("urgency");
  });
});
