import type { JournalEntry } from "../journal/entry";
import type { CategoryId, MemberId, RecordId, RoundId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type Urgency, USUAL_URGENCY } from "../kernel/urgency";
import { type Filing, type MessagePart, partKey } from "../records/filing-means";
import { type ConversationFacts, deriveFlow, type StandingChange } from "../standing/derive-standing";
import type { FollowUp, Standing } from "../standing/standing";
import { type Mark, turnMarks } from "../turn-line/marks";
import { type Expectation, isOpen } from "../turns/expectations";
import { lapsesAt } from "../turns/lapse";
import { type TurnAndWhy, turnOf } from "../turns/whose-turn";
import { givenCategories } from "./given-categories";

/** A message or an attachment that is filed by itself: where, when, and by whom; null for the tray itself. */
type FiledPart = Filing & MessagePart & { readonly at: Instant; readonly by: MemberId | null };

/** The card of a conversation: everything about it that is derived and stored for listing. */
export type Docket = {
  readonly standing: Standing;
  readonly turn: TurnAndWhy;
  readonly ownerId: MemberId | null;
  /** Who is kept informed, in the order in which they began to follow it. */
  readonly followerIds: readonly MemberId[];
  /** In the order in which they were given. */
  readonly categoryIds: readonly CategoryId[];
  /** In the order in which it was filed. */
  readonly recordIds: readonly RecordId[];
  /** Messages and attachments of it that are filed by themselves, in the order in which they were. */
  readonly filedParts: readonly FiledPart[];
  readonly expectations: readonly Expectation[];
  /** The earliest date by which an open expectation should be met; null when none has one. */
  readonly expectedAt: Instant | null;
  /** When it stops to matter; null when it does for good. */
  readonly expiresAt: Instant | null;
  readonly restingUntil: Instant | null;
  readonly heldFor: RoundId | null;
  /** When it last came back from a rest of itself, which puts it on top; null when it never did. */
  readonly wokenAt: Instant | null;
  readonly urgency: Urgency;
  /** Open ones and done ones, in the order in which they were set. */
  readonly followUps: readonly FollowUp[];
  /** The earliest date of an open follow-up; null when none has one. */
  readonly followUpAt: Instant | null;
  readonly marks: readonly Mark[];
  readonly passages: readonly StandingChange[];
};

/** The docket that the facts come to. The store keeps what this says; `tray doctor` compares the two. */
export function deriveDocket(facts: ConversationFacts): Docket {
  const flow = deriveFlow(facts);
  const entries = facts.entries.toSorted((a, b) => a.version - b.version);
  const dated = flow.expectations.filter((expectation) => isOpen(expectation) && expectation.until !== null);
  const followUps = followUpsOf(entries);
  return {
    standing: flow.standing,
    turn: turnOf(facts.messages, facts.entries),
    ownerId: flow.ownerId,
    followerIds: followersOf(entries),
    categoryIds: givenCategories(entries, facts.replacedCategories),
    recordIds: recordsOf(entries),
    filedParts: filedPartsOf(entries),
    expectations: flow.expectations,
    expectedAt: earliest(dated.map(({ until }) => until)),
    expiresAt: lapsesAt(facts.messages, facts.entries),
    restingUntil: flow.restingUntil,
    heldFor: flow.heldFor,
    wokenAt: flow.wokenAt,
    urgency: urgencyOf(entries),
    followUps,
    followUpAt: earliest(followUps.map(({ doneAt, dueAt }) => (doneAt === null ? dueAt : null))),
    marks: turnMarks(facts),
    passages: flow.passages,
  };
}

function earliest(dates: readonly (Instant | null)[]): Instant | null {
  const known = dates.filter((date) => date !== null);
  return known.length === 0 ? null : (Math.min(...known) as Instant);
}

function urgencyOf(entries: readonly JournalEntry[]): Urgency {
  const effect = entries.findLast((entry) => entry.effect.kind === "urgency-set")?.effect;
  return effect?.kind === "urgency-set" ? effect.urgency : USUAL_URGENCY;
}

function followUpsOf(entries: readonly JournalEntry[]): FollowUp[] {
  const followUps = new Map<FollowUp["id"], FollowUp>();
  for (const { effect, by, at } of entries) {
    if (effect.kind === "follow-up-set") {
      const { followUpId: id, forMember, dueAt, text } = effect;
      // Set again, it keeps its place and is open once more.
      followUps.set(id, { id, forMember, setBy: by, dueAt, text, doneAt: null });
    } else if (effect.kind === "follow-up-done") {
      const known = followUps.get(effect.followUpId);
      if (known !== undefined) followUps.set(known.id, { ...known, doneAt: at });
    } else if (effect.kind === "follow-up-cleared") {
      followUps.delete(effect.followUpId);
    }
  }
  return [...followUps.values()];
}

function followersOf(entries: readonly JournalEntry[]): MemberId[] {
  const followers = new Set<MemberId>();
  for (const { effect } of entries) {
    if (effect.kind === "followed") followers.add(effect.memberId);
    else if (effect.kind === "unfollowed") followers.delete(effect.memberId);
  }
  return [...followers];
}

function recordsOf(entries: readonly JournalEntry[]): RecordId[] {
  const records = new Set<RecordId>();
  for (const { effect } of entries) {
    if (effect.kind === "filed") records.add(effect.recordId);
    else if (effect.kind === "unfiled") records.delete(effect.recordId);
  }
  return [...records];
}

function filedPartsOf(entries: readonly JournalEntry[]): FiledPart[] {
  const parts = new Map<string, FiledPart>();
  for (const { effect, at, by } of entries) {
    if (effect.kind !== "part-filed" && effect.kind !== "part-unfiled") continue;
    const key = `${effect.recordId}/${partKey(effect)}`;
    if (effect.kind === "part-unfiled") parts.delete(key);
    else {
      const { kind: _, ...filing } = effect;
      parts.set(key, { ...filing, at, by });
    }
  }
  return [...parts.values()];
}
