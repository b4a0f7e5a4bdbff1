import {
  aConversation,
  bounced,
  type Happening,
  hour,
  INES,
  listWrote,
  machineWrote,
  TOBIAS,
  theyWrote,
  weWrote,
} from "@tests/support/a-conversation";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Decision } from "../deciding/decision";
import { planDecision } from "../deciding/plan-decision";
import type { JournalEntry } from "../journal/entry";
import { planUndo } from "../journal/plan-undo";
import { type CategoryId, type EntryId, type ExpectationId, type RecordId, trustedId } from "../kernel/ids";
import type { ConversationFacts } from "../standing/derive-standing";
import { STANDINGS } from "../standing/standing";
import { deriveDocket } from "./derive-docket";

const decision: fc.Arbitrary<Decision> = fc.oneof(
  fc.constantFrom<Decision>(
    { kind: "assign", ownerId: INES },
    { kind: "assign", ownerId: TOBIAS },
    { kind: "assign", ownerId: null },
    { kind: "keep" },
    { kind: "settle" },
    { kind: "bin" },
    { kind: "restore" },
    { kind: "stop-expecting" },
    { kind: "rest", until: hour(900) },
    { kind: "expect", until: hour(900), expectationId: trustedId<ExpectationId>("x") },
    { kind: "file", recordId: trustedId<RecordId>("r"), settle: true },
    { kind: "unfile", recordId: trustedId<RecordId>("r") },
  ),
  fc.record({
    kind: fc.constant("categorise" as const),
    categoryId: fc.constantFrom("a", "b").map((id) => trustedId<CategoryId>(id)),
    give: fc.boolean(),
  }),
);
const message = fc.constantFrom<Happening>(theyWrote(), weWrote(), machineWrote(), listWrote(), bounced());

/** Carries decisions out one after the other, as the operations do. */
function decided(happenings: readonly Happening[], decisions: readonly Decision[]): ConversationFacts {
  let facts = aConversation(theyWrote(), ...happenings);
  for (const one of decisions) facts = { ...facts, entries: [...facts.entries, ...entriesOf(one, facts)] };
  return facts;
}

function entriesOf(one: Decision, facts: ConversationFacts): JournalEntry[] {
  const version = facts.messages.length + facts.entries.length;
  return planDecision(one, facts).map((effect, at) => ({
    id: trustedId<EntryId>(`d${version + at}`),
    version: version + at + 1,
    at: hour(version + at + 1),
    by: INES,
    effect,
  }));
}

describe("whatever is decided", () => {
  it("there is one standing of those there are, and an age that is not in the future", () => {
    fc.assert(
      fc.property(fc.array(message, { maxLength: 6 }), fc.array(decision, { maxLength: 8 }), (messages, decisions) => {
        const facts = decided(messages, decisions);
        const { standing } = deriveDocket(facts);
        expect(STANDINGS).toContain(standing.kind);
        expect(standing.since).toBeLessThanOrEqual(hour(facts.messages.length + facts.entries.length));
      }),
    );
  });

  it("deciding the same again changes nothing more, but for a rest or an expectation made anew", () => {
    fc.assert(
      fc.property(fc.array(decision, { maxLength: 6 }), decision, (before, one) => {
        fc.pre(one.kind !== "rest" && one.kind !== "expect");
        const facts = decided([], [...before, one]);
        expect(planDecision(one, facts)).toEqual([]);
      }),
    );
  });

  it("undoing the newest decision gives back the docket there was", () => {
    fc.assert(
      fc.property(
        fc.array(message, { maxLength: 4 }),
        fc.array(decision, { maxLength: 6 }),
        decision,
        (messages, before, one) => {
          const facts = decided(messages, before);
          const entries = entriesOf(one, facts);
          const all = [...facts.entries, ...entries];
          const plans = planUndo(entries, all);
          expect(plans.every(({ kind }) => kind === "undo")).toBe(true);
          const undone = new Set(plans.map(({ entry }) => entry.id));
          const remaining = all.filter(({ id }) => !undone.has(id));
          expect(deriveDocket({ ...facts, entries: remaining })).toEqual(deriveDocket(facts));
        },
      ),
    );
  });

  it("what waits has something open to wait for, and what rests has an end", () => {
    fc.assert(
      fc.property(fc.array(message, { maxLength: 6 }), fc.array(decision, { maxLength: 8 }), (messages, decisions) => {
        const { standing, expectations, restingUntil } = deriveDocket(decided(messages, decisions));
        const open = expectations.some(({ state }) => state === "open");
        if (standing.kind === "waiting") expect(open).toBe(true);
        expect(standing.kind === "resting").toBe(restingUntil !== null);
      }),
    );
  });
});
