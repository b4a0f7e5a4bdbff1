import type { Effect } from "../journal/entry";
import { domainOf, type EmailAddress } from "../kernel/email-address";
import type {
  CategoryId,
  EntryId,
  ExpectationId,
  FollowUpId,
  GroupId,
  MemberId,
  MessageId,
  RecordId,
} from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { Urgency } from "../kernel/urgency";
import type { FieldValues } from "../records/filing-field";
import { type Filing, type MessagePart, partKey } from "../records/filing-means";
import type { ConversationFacts } from "../standing/derive-standing";
import { isOpen } from "../turns/expectations";
import { moveEffect } from "../turns/move-effect";
import { acknowledgedIn } from "../turns/whose-turn";
import { type Docket, deriveDocket } from "./derive-docket";
import { filingOn } from "./filing-on";

/** Everything that a member can decide about conversations, one or many at a time. */
export type Decision =
  /** `note` is a word for the new owner; `evenIfAway` gives it to somebody who is away all the same. */
  | {
      readonly kind: "assign";
      readonly ownerId: MemberId | null;
      readonly note?: string;
      readonly evenIfAway?: boolean;
    }
  /** To whoever of a group has least to do. Who that is, only the store knows: it is planned as an assignment. */
  | { readonly kind: "assign-in-turn"; readonly groupId: GroupId; readonly note?: string }
  | { readonly kind: "follow"; readonly memberId: MemberId; readonly follows: boolean }
  | { readonly kind: "categorise"; readonly categoryId: CategoryId; readonly give: boolean }
  /** `part` files a message or an attachment alone, or takes it off. */
  | ({ readonly kind: "file"; readonly settle: boolean; readonly part?: MessagePart } & Filing)
  /** Where it is filed, it is given other particulars; left out while it is not known what its record asks for. */
  | { readonly kind: "particulars"; readonly recordId: RecordId; readonly fields?: FieldValues }
  | { readonly kind: "unfile"; readonly recordId: RecordId; readonly part?: MessagePart }
  | { readonly kind: "keep" }
  | { readonly kind: "settle" }
  | { readonly kind: "bin" }
  | { readonly kind: "restore" }
  | { readonly kind: "junk" }
  /** Until null rests until somebody writes; `evenIfAnswered` rests to its end whoever writes. */
  | { readonly kind: "rest"; readonly until: Instant | null; readonly evenIfAnswered?: boolean }
  | { readonly kind: "urgency"; readonly urgency: Urgency }
  | {
      readonly kind: "follow-up";
      readonly followUpId: FollowUpId;
      readonly forMember: MemberId;
      readonly dueAt: Instant | null;
      readonly text: string;
    }
  | { readonly kind: "follow-up-done"; readonly followUpId: FollowUpId }
  | { readonly kind: "follow-up-clear"; readonly followUpId: FollowUpId }
  /** `whom` left out means any of those who wrote; it takes the place of what is awaited unless it comes `besides`. */
  | {
      readonly kind: "expect";
      readonly until: Instant | null;
      readonly expectationId: ExpectationId;
      readonly whom?: Whom;
      readonly colleagueId?: MemberId;
      readonly besides?: boolean;
    }
  | { readonly kind: "extend"; readonly expectationId: ExpectationId; readonly until: Instant | null }
  | { readonly kind: "withdraw"; readonly expectationId: ExpectationId }
  | { readonly kind: "stop-expecting" }
  /** A message of theirs is no answer yet; the newest one where none is named. */
  | { readonly kind: "acknowledge"; readonly messageId: MessageId | null }
  /** When it stops to matter; null for never. */
  | { readonly kind: "expire"; readonly at: Instant | null }
  /** Nobody owes anything: it is settled, and nobody's move until somebody writes. */
  | { readonly kind: "no-answer" }
  | { readonly kind: "note"; readonly text: string; readonly mentions?: readonly MemberId[] }
  | {
      readonly kind: "edit-note";
      readonly entryId: EntryId;
      readonly text: string;
      readonly mentions?: readonly MemberId[];
    };

/** Whom an answer is awaited from: any of them, each of them, anybody outside, anybody of their houses. */
export const WHOM = ["any", "each", "anybody", "house"] as const;
export type Whom = (typeof WHOM)[number];

type Planner<Kind extends Decision["kind"]> = (
  decision: Extract<Decision, { kind: Kind }>,
  now: Docket,
  facts: ConversationFacts,
) => Effect[];

const PLANNERS: { readonly [Kind in Decision["kind"]]: Planner<Kind> } = {
  assign: ({ ownerId, note = "" }, now) => {
    const assigned: Effect[] = now.ownerId === ownerId ? [] : [{ kind: "assigned", ownerId }];
    if (note === "") return assigned;
    return [...assigned, { kind: "noted", text: note, ...(ownerId === null ? {} : { mentions: [ownerId] }) }];
  },
  "assign-in-turn": () => [],
  follow: ({ memberId, follows }, now) => {
    if (now.followerIds.includes(memberId) === follows) return [];
    return [{ kind: follows ? "followed" : "unfollowed", memberId }];
  },
  categorise: ({ categoryId, give }, now) => {
    if (now.categoryIds.includes(categoryId) === give) return [];
    return [{ kind: give ? "categorised" : "uncategorised", categoryId }];
  },
  file: ({ kind: _, settle, part, ...filing }, now, { messages }) => {
    if (part !== undefined) {
      const isHere = messages.some(({ id }) => id === part.messageId);
      return isHere && !isPartOn(now, filing.recordId, part) ? [{ kind: "part-filed", ...filing, ...part }] : [];
    }
    const filed: Effect[] = now.recordIds.includes(filing.recordId) ? [] : [{ kind: "filed", ...filing }];
    return settle && now.standing.kind !== "settled" ? [...filed, { kind: "settled" }] : filed;
  },
  particulars: ({ recordId, fields = {} }, now, { entries }) => {
    const known = now.recordIds.includes(recordId) ? filingOn(entries, recordId) : null;
    const isSo = known === null || sameValues(known.fields ?? {}, fields);
    return isSo ? [] : [{ kind: "particulars-set", recordId, fields }];
  },
  unfile: ({ recordId, part }, now) => {
    if (part !== undefined) return isPartOn(now, recordId, part) ? [{ kind: "part-unfiled", recordId, ...part }] : [];
    return now.recordIds.includes(recordId) ? [{ kind: "unfiled", recordId }] : [];
  },
  keep: (_, now) => (now.standing.kind === "our-move" ? [] : [{ kind: "kept" }]),
  settle: (_, now) => (now.standing.kind === "settled" ? [] : [{ kind: "settled" }]),
  bin: (_, now) => (now.standing.kind === "bin" ? [] : [{ kind: "binned" }]),
  restore: (_, now) => (now.standing.kind === "bin" || now.standing.kind === "junk" ? [{ kind: "restored" }] : []),
  junk: (_, now) => (now.standing.kind === "junk" ? [] : [{ kind: "junked" }]),
  rest: ({ until, evenIfAnswered = false }) => [
    { kind: "rested", until, ...(evenIfAnswered ? { evenIfAnswered } : {}) },
  ],
  urgency: ({ urgency }, now) => (now.urgency === urgency ? [] : [{ kind: "urgency-set", urgency }]),
  "follow-up": ({ kind: _, ...followUp }) => [{ kind: "follow-up-set", ...followUp }],
  "follow-up-done": ({ followUpId }, now) => {
    const open = now.followUps.some(({ id, doneAt }) => id === followUpId && doneAt === null);
    return open ? [{ kind: "follow-up-done", followUpId }] : [];
  },
  "follow-up-clear": ({ followUpId }, now) =>
    now.followUps.some(({ id }) => id === followUpId) ? [{ kind: "follow-up-cleared", followUpId }] : [],
  // A new date for the same question replaces the old one.
  expect: (decision, now, facts) => [
    ...(decision.besides === true ? [] : withdrawals(now)),
    expectedBy(decision, peopleOutside(facts), lastOfOurs(facts)),
  ],
  extend: ({ expectationId, until }, now) => {
    const one = now.expectations.find(({ id }) => id === expectationId);
    return one !== undefined && isOpen(one) && one.until !== until ? [{ kind: "extended", expectationId, until }] : [];
  },
  withdraw: ({ expectationId }, now) =>
    withdrawals({ expectations: now.expectations.filter(({ id }) => id === expectationId) }),
  acknowledge: ({ messageId }, _, { messages, entries }) => {
    const theirs = messages.filter((one) => moveEffect(one) === "they-wrote").toSorted((a, b) => a.at - b.at);
    const named = messageId === null ? theirs.at(-1) : theirs.find(({ id }) => id === messageId);
    if (named === undefined || acknowledgedIn(entries).has(named.id)) return [];
    return [{ kind: "acknowledged", messageId: named.id }];
  },
  expire: ({ at }, now) => (now.expiresAt === at ? [] : [{ kind: "expiry-set", at }]),
  "no-answer": (_, now) => [
    ...(now.turn.kind === "nobody" ? [] : [{ kind: "turn-set", turn: "nobody" } as const]),
    ...(now.standing.kind === "settled" ? [] : [{ kind: "settled" } as const]),
  ],
  "stop-expecting": (_, now) => withdrawals(now),
  note: ({ text, mentions = [] }) => [{ kind: "noted", text, ...(mentions.length === 0 ? {} : { mentions }) }],
  "edit-note": ({ kind: _, ...edited }) => [{ kind: "note-edited", ...edited }],
};

/** What a decision would do to a conversation: nothing where it is so already, so that deciding twice is deciding once. */
export function planDecision<Kind extends Decision["kind"]>(
  decision: Extract<Decision, { kind: Kind }>,
  facts: ConversationFacts,
): Effect[] {
  // The table's type ties each planner to its decision; an index by a union loses that tie.
  const planner = PLANNERS[decision.kind as Kind] as Planner<Kind>;
  return planner(decision, deriveDocket(facts), facts);
}

function isPartOn({ filedParts }: Docket, recordId: RecordId, part: MessagePart): boolean {
  return filedParts.some((one) => one.recordId === recordId && partKey(one) === partKey(part));
}

function sameValues(one: FieldValues, other: FieldValues): boolean {
  const keys = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...keys].every((key) => (one[key] ?? "") === (other[key] ?? ""));
}

function withdrawals(now: Pick<Docket, "expectations">): Effect[] {
  return now.expectations.filter(isOpen).map((expectation) => ({ kind: "withdrawn", expectationId: expectation.id }));
}

/** The effect of awaiting an answer: from these people, by these words. A house is the domain of the first of them. */
export function expectedBy(
  {
    until,
    expectationId,
    whom = "any",
    colleagueId,
  }: Pick<Extract<Decision, { kind: "expect" }>, "until" | "expectationId" | "whom" | "colleagueId">,
  people: readonly EmailAddress[],
  messageId: MessageId | null,
): Extract<Effect, { kind: "expected" }> {
  const made = { kind: "expected", expectationId, until, messageId } as const;
  if (colleagueId !== undefined) return { ...made, from: [], colleagueId };
  const [first] = people;
  if (whom === "anybody" || first === undefined) return { ...made, from: [] };
  if (whom === "each") return { ...made, from: people, need: "each" };
  return whom === "house" ? { ...made, from: people, organisation: domainOf(first) } : { ...made, from: people };
}

function peopleOutside(facts: ConversationFacts): EmailAddress[] {
  const theirs = facts.messages.filter((message) => moveEffect(message) === "they-wrote");
  return [...new Set(theirs.map((message) => message.from))];
}

function lastOfOurs(facts: ConversationFacts): MessageId | null {
  return facts.messages.findLast((message) => message.direction === "out")?.id ?? null;
}
