import {
  aConversation,
  bounced,
  did,
  type Happening,
  hour,
  INES,
  listWrote,
  machineWrote,
  THRANE,
  TOBIAS,
  theyWrote,
  VANE,
  weWrote,
} from "@tests/support/a-conversation";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type ExpectationId, type MessageId, trustedId } from "../kernel/ids";
import { deriveFlow, NOTHING_HAPPENED } from "./derive-standing";

const expectation = trustedId<ExpectationId>("x1");
const asked = (from = [VANE]): Happening =>
  did({ kind: "expected", expectationId: expectation, from, until: hour(50), messageId: trustedId<MessageId>("m2") });
const taken = did({ kind: "assigned", ownerId: TOBIAS });
const settled = did({ kind: "settled" });
const given = did({ kind: "assigned", ownerId: TOBIAS }, null);
const held = did({ kind: "held", roundId: trustedId("r1"), round: "Mass mail" }, null);
const letIn = did({ kind: "let-in" }, null);

const standingAfter = (...happenings: Happening[]) => deriveFlow(aConversation(...happenings)).standing;

describe("where a conversation is", () => {
  it.each<[string, Happening[], string, string]>([
    ["new mail from outside comes in To sort", [theyWrote()], "to-sort", "arrived"],
    ["a machine's message that starts one does too", [machineWrote()], "to-sort", "arrived"],
    ["assigning makes it our move", [theyWrote(), taken], "our-move", "taken"],
    [
      "taking the owner off leaves it there",
      [theyWrote(), taken, did({ kind: "assigned", ownerId: null })],
      "our-move",
      "taken",
    ],
    ["an answer that expects a reply waits", [theyWrote(), weWrote(), asked()], "waiting", "asked"],
    ["an answer that expects none is the end of it", [theyWrote(), weWrote()], "settled", "answered"],
    [
      "an answer after which there is more to do is ours",
      [theyWrote(), weWrote(), did({ kind: "kept" })],
      "our-move",
      "kept",
    ],
    ["a person's reply brings it back", [theyWrote(), weWrote(), asked(), theyWrote()], "our-move", "replied"],
    ["an automatic reply does not", [theyWrote(), weWrote(), asked(), machineWrote()], "waiting", "asked"],
    ["a bounce does at once", [theyWrote(), weWrote(), asked(), bounced()], "our-move", "bounced"],
    ["more from us while we wait is still waiting", [theyWrote(), weWrote(), asked(), weWrote()], "waiting", "asked"],
    [
      "a message that could not be sent is ours",
      [theyWrote(), weWrote(), asked(), did({ kind: "send-failed", messageId: trustedId("m2"), reason: "no" }, null)],
      "our-move",
      "not-sent",
    ],
    [
      "withdrawing the expectation makes it ours",
      [theyWrote(), weWrote(), asked(), did({ kind: "withdrawn", expectationId: expectation })],
      "our-move",
      "withdrawn",
    ],
    ["settled stays settled when a machine writes", [theyWrote(), settled, machineWrote()], "settled", "settled"],
    [
      "a settled one with an owner comes back to the owner",
      [theyWrote(), taken, settled, theyWrote()],
      "our-move",
      "replied",
    ],
    ["a settled one of nobody has to be sorted again", [theyWrote(), settled, theyWrote()], "to-sort", "arrived"],
    ["new list mail in a settled one has to be sorted", [listWrote(), settled, listWrote()], "to-sort", "arrived"],
    ["list mail does not end waiting", [theyWrote(), weWrote(), asked(), listWrote()], "waiting", "asked"],
    ["binned is in the bin", [theyWrote(), did({ kind: "binned" })], "bin", "binned"],
    [
      "a person who writes on fetches it out of the bin",
      [theyWrote(), did({ kind: "binned" }), theyWrote()],
      "to-sort",
      "arrived",
    ],
    [
      "brought back from the bin it has to be sorted",
      [theyWrote(), did({ kind: "binned" }), did({ kind: "restored" })],
      "to-sort",
      "restored",
    ],
    ["junk stays junk whoever writes", [theyWrote(), did({ kind: "junked" }), theyWrote()], "junk", "junked"],
    ["resting rests", [theyWrote(), did({ kind: "rested", until: hour(9) })], "resting", "rested"],
    [
      "somebody who writes ends the rest",
      [theyWrote(), did({ kind: "rested", until: hour(9) }), theyWrote()],
      "our-move",
      "replied",
    ],
    [
      "a rest that is over ends",
      [theyWrote(), did({ kind: "rested", until: hour(3) }), did({ kind: "rest-ended" }, null)],
      "to-sort",
      "rest-ended",
    ],
    [
      "what was ours comes back as ours",
      [theyWrote(), taken, did({ kind: "rested", until: hour(4) }), did({ kind: "rest-ended" }, null)],
      "our-move",
      "rest-ended",
    ],
    [
      "what waited waits again after its rest",
      [theyWrote(), weWrote(), asked(), did({ kind: "rested", until: hour(5) }), did({ kind: "rest-ended" }, null)],
      "waiting",
      "rest-ended",
    ],
    [
      "a rest made longer still comes back to where it was at first",
      [
        theyWrote(),
        taken,
        did({ kind: "rested", until: hour(9) }),
        did({ kind: "rested", until: hour(5) }),
        did({ kind: "rest-ended" }, null),
      ],
      "our-move",
      "rest-ended",
    ],
    [
      "a rest to its end stays whoever writes",
      [theyWrote(), did({ kind: "rested", until: hour(9), evenIfAnswered: true }), theyWrote()],
      "resting",
      "rested",
    ],
    [
      "a rest without an end waits for somebody to write",
      [theyWrote(), did({ kind: "rested", until: null }), did({ kind: "rest-ended" }, null)],
      "resting",
      "rested",
    ],
    [
      "and ends when somebody does",
      [theyWrote(), did({ kind: "rested", until: null }), theyWrote()],
      "our-move",
      "replied",
    ],
    ["what a rule holds back is held", [theyWrote(), held], "held", "held"],
    ["it is let in to be sorted", [theyWrote(), held, letIn], "to-sort", "let-in"],
    ["or to whom a rule gave it meanwhile", [theyWrote(), held, given, letIn], "our-move", "let-in"],
    ["who assigns it by hand takes it out", [theyWrote(), held, taken], "our-move", "taken"],
    ["letting in what is held no more does nothing", [theyWrote(), held, settled, letIn], "settled", "settled"],
    ["whoever writes into it brings it in", [theyWrote(), held, theyWrote()], "to-sort", "arrived"],
    ["a list does so as well", [listWrote(), held, listWrote()], "to-sort", "arrived"],
    ["and a machine", [machineWrote(), held, machineWrote()], "to-sort", "arrived"],
    ["unless a rule holds that too", [listWrote(), held, listWrote(), held], "held", "held"],
    [
      "a rest that was made longer meanwhile goes on",
      [theyWrote(), did({ kind: "rested", until: hour(9) }), did({ kind: "rest-ended" }, null)],
      "resting",
      "rested",
    ],
  ])("%s", (_, happenings, kind, reason) => {
    const standing = standingAfter(...happenings);
    expect([standing.kind, standing.reason.kind]).toEqual([kind, reason]);
  });

  it("keeps the age of what has to be done when they write again", () => {
    expect(standingAfter(theyWrote(), theyWrote(), theyWrote()).since).toBe(hour(1));
    expect(standingAfter(theyWrote(), taken, theyWrote()).since).toBe(hour(2));
  });

  it("holds with the first of them what came into it while it was held", () => {
    expect(standingAfter(listWrote(), held, listWrote(), held).since).toBe(hour(2));
    expect(standingAfter(listWrote(), held, letIn, listWrote(), settled, listWrote(), held).since).toBe(hour(7));
  });

  it("keeps the owner through waiting and coming back", () => {
    const flow = deriveFlow(aConversation(theyWrote(), taken, weWrote(), asked(), theyWrote()));
    expect(flow.ownerId).toBe(TOBIAS);
  });

  it("says when the message went that asked", () => {
    expect(standingAfter(theyWrote(), weWrote(), asked()).reason).toEqual({
      kind: "asked",
      by: INES,
      askedAt: hour(2),
      until: hour(50),
    });
  });

  it("refuses a conversation in which nothing happened", () => {
    expect(() => deriveFlow(NOTHING_HAPPENED)).toThrow("has no standing");
  });
});

describe("what becomes of an expectation", () => {
  const stateAfter = (...happenings: Happening[]) =>
    deriveFlow(aConversation(theyWrote(), weWrote(), ...happenings)).expectations.map(({ state }) => state);

  it.each<[string, Happening[], string]>([
    ["open until somebody answers", [asked()], "open"],
    ["answered by whom we wait for", [asked(), theyWrote(VANE)], "answered"],
    ["still open when somebody else writes", [asked(), theyWrote(THRANE)], "open"],
    ["answered by anybody when nobody was named", [asked([]), theyWrote(THRANE)], "answered"],
    ["impossible when all of them bounced", [asked(), bounced(VANE)], "impossible"],
    ["still open when one of two bounced", [asked([VANE, THRANE]), bounced(VANE)], "open"],
  ])("%s", (_, happenings, state) => expect(stateAfter(...happenings)).toEqual([state]));
});

describe("its passages", () => {
  it("tell each change of standing once, an answer and its expectation as one step", () => {
    const flow = deriveFlow(aConversation(theyWrote(), taken, weWrote(), theyWrote(), theyWrote()));
    expect(flow.passages.map(({ standing }) => standing.kind)).toEqual(["to-sort", "our-move", "settled", "our-move"]);
  });

  it("do not depend on the order in which facts are read", () => {
    const things: Happening[] = [
      theyWrote(),
      taken,
      weWrote(),
      asked(),
      machineWrote(),
      theyWrote(),
      settled,
      bounced(),
      theyWrote(),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(things, { minLength: 1 }), fc.integer(), (some, seed) => {
        const facts = aConversation(theyWrote(), ...some);
        const turned = <T>(list: readonly T[]) =>
          list.toSorted((a, b) => JSON.stringify(a).length * seed - JSON.stringify(b).length * seed);
        expect(deriveFlow({ ...facts, messages: turned(facts.messages), entries: turned(facts.entries) })).toEqual(
          deriveFlow(facts),
        );
      }),
    );
  });
});
