import type { EffectKind, JournalEntry } from "../journal/entry";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type ConversationFacts, deriveFlow, type Passage } from "../standing/derive-standing";
import type { Expectation, Standing } from "../standing/standing";
import { type Mark, turnMarks } from "../turn-line/marks";
import { type Turn, whoseTurn } from "../turns/whose-turn";

/** The card of a conversation: everything about it that is derived and stored for listing. */
export type Docket = {
  readonly standing: Standing;
  readonly turn: Turn;
  readonly ownerId: MemberId | null;
  /** In the order in which they were given. */
  readonly categoryIds: readonly CategoryId[];
  /** In the order in which it was filed. */
  readonly recordIds: readonly RecordId[];
  readonly expectations: readonly Expectation[];
  /** The earliest date by which an open expectation should be met; null when none has one. */
  readonly expectedAt: Instant | null;
  readonly restingUntil: Instant | null;
  readonly marks: readonly Mark[];
  readonly passages: readonly Passage[];
};

/** The docket that the facts come to. The store keeps what this says; `tray doctor` compares the two. */
export function deriveDocket(facts: ConversationFacts): Docket {
  const flow = deriveFlow(facts);
  const entries = facts.entries.toSorted((a, b) => a.version - b.version);
  const dated = flow.expectations.filter((expectation) => expectation.state === "open" && expectation.until !== null);
  const dates = dated.map((expectation) => expectation.until ?? 0) as Instant[];
  return {
    standing: flow.standing,
    turn: whoseTurn(facts.messages),
    ownerId: flow.ownerId,
    categoryIds: membersOf(entries, "categorised", "uncategorised", (effect) =>
      "categoryId" in effect ? effect.categoryId : null,
    ),
    recordIds: membersOf(entries, "filed", "unfiled", (effect) => ("recordId" in effect ? effect.recordId : null)),
    expectations: flow.expectations,
    expectedAt: dates.length === 0 ? null : (Math.min(...dates) as Instant),
    restingUntil: flow.restingUntil,
    marks: turnMarks(facts),
    passages: flow.passages,
  };
}

function membersOf<Id>(
  entries: readonly JournalEntry[],
  adds: EffectKind,
  removes: EffectKind,
  idOf: (effect: JournalEntry["effect"]) => Id | null,
): Id[] {
  const members = new Set<Id>();
  for (const { effect } of entries) {
    const id = idOf(effect);
    if (id === null) continue;
    if (effect.kind === adds) members.add(id);
    else if (effect.kind === removes) members.delete(id);
  }
  return [...members];
}
