import type { RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { afterPeriod, readPeriod } from "./period";
import type { EndsIn, RetentionPolicy } from "./policy";

/** What gives a policy to a record: itself, its type, or a category of conversations on it. */
type PolicyFrom = { readonly kind: "record" | "type" } | { readonly kind: "category"; readonly name: string };

/** A policy that applies to a record. */
export type Applied = {
  readonly policy: RetentionPolicy;
  readonly from: PolicyFrom;
  /** The newest message of what it is for; null where there is none. */
  readonly lastMessageAt: Instant | null;
};

/** What the term of a record depends on. */
export type RetainedRecord = {
  readonly id: RecordId;
  readonly code: string;
  readonly parentId: RecordId | null;
  readonly createdAt: Instant;
  readonly closedAt: Instant | null;
  readonly applied: readonly Applied[];
  /** Somebody looked at it and had it kept until then. */
  readonly keptUntil: Instant | null;
  /** Why it must not go, whatever the term says; none where nothing holds it. */
  readonly holds: readonly string[];
};

/** How long a record is kept, and why. */
export type Term =
  /** No policy says how long. */
  | { readonly kind: "for-good"; readonly under: string | null }
  /** Its time begins with its closing. */
  | { readonly kind: "not-closed"; readonly why: Applied; readonly under: string | null }
  | { readonly kind: "held"; readonly reasons: readonly string[] }
  | {
      readonly kind: "until";
      readonly at: Instant;
      readonly endsIn: EndsIn;
      /** Null where it was kept for longer by hand. */
      readonly why: Applied | null;
      /** The code of the record under it that is kept for longest, where that is why. */
      readonly under: string | null;
    };

/**
 * The terms of all records of a register. Of the policies that apply to one the longest counts, by the calendar of `zone`;
 * what a member had kept longer is kept so long. A hold on a record holds what stands under it, too. Nothing goes before
 * what stands under it.
 */
export function termsOf(records: readonly RetainedRecord[], zone: string): Map<RecordId, Term> {
  const byId = new Map(records.map((record) => [record.id, record]));
  const under = new Map<RecordId, RetainedRecord[]>();
  for (const record of records) {
    if (record.parentId !== null) under.set(record.parentId, [...(under.get(record.parentId) ?? []), record]);
  }
  const terms = new Map<RecordId, Term>();
  const termOf = (record: RetainedRecord, holds: readonly string[]): Term => {
    const reasons = [...holds, ...record.holds];
    const below = (under.get(record.id) ?? []).map((one) => ({ code: one.code, term: termOf(one, reasons) }));
    const own: Term = reasons.length > 0 ? { kind: "held", reasons } : ownTerm(record, zone);
    const term = below.reduce((longest, { code, term: theirs }) => longer(longest, theirs, code), own);
    terms.set(record.id, term);
    return term;
  };
  for (const record of records) {
    // What stands under something that is not among them is a root here.
    if (record.parentId === null || !byId.has(record.parentId)) termOf(record, []);
  }
  return terms;
}

function ownTerm(record: RetainedRecord, zone: string): Term {
  let longest: Term | null = null;
  for (const applied of record.applied) {
    const ends = endOf(applied, record, zone);
    const term: Term =
      ends === null
        ? { kind: "not-closed", why: applied, under: null }
        : { kind: "until", at: ends, endsIn: applied.policy.endsIn, why: applied, under: null };
    longest = longest === null ? term : longerOwn(longest, term);
  }
  if (longest === null) return { kind: "for-good", under: null };
  const { keptUntil } = record;
  if (longest.kind !== "until" || keptUntil === null || keptUntil <= longest.at) return longest;
  // Whoever had it kept looks at it again.
  return { kind: "until", at: keptUntil, endsIn: "review", why: null, under: null };
}

function endOf({ policy, lastMessageAt }: Applied, record: RetainedRecord, zone: string): Instant | null {
  const period = readPeriod(policy.period);
  // A policy is kept only when it can be read; one that cannot ends nothing.
  if (!period.ok) return null;
  const from = policy.countsFrom === "closing" ? record.closedAt : (lastMessageAt ?? record.createdAt);
  return from === null ? null : afterPeriod(from, period.value, zone);
}

// Of two that end together the one that has somebody look at it.
function longerOwn(a: Term, b: Term): Term {
  if (a.kind !== "until") return a;
  if (b.kind !== "until") return b;
  if (a.at === b.at) return a.endsIn === "review" ? a : b;
  return a.at > b.at ? a : b;
}

function longer(own: Term, below: Term, code: string): Term {
  if (own.kind === "held" || own.kind === "for-good" || own.kind === "not-closed") return own;
  if (below.kind === "held") return { kind: "for-good", under: code };
  if (below.kind !== "until") return { ...below, under: code };
  return below.at > own.at ? { ...own, at: below.at, under: code } : own;
}

/** Whether a term is over. */
export function isDue(term: Term, now: Instant): boolean {
  return term.kind === "until" && term.at <= now;
}
