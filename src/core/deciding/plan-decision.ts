import { type Docket, deriveDocket } from "../docket/derive-docket";
import { filingOn } from "../docket/filing-on";
import type { Effect } from "../journal/entry";
import { domainOf, type EmailAddress } from "../kernel/email-address";
import type { CategoryId, GroupId, MemberId, MessageId, RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { FieldValues } from "../records/filing-field";
import { type MessagePart, partKey } from "../records/filing-means";
import { type ConversationFacts, deriveFlow } from "../standing/derive-standing";
import type { StandingKind } from "../standing/standing";
import { isOpen } from "../turns/expectations";
import { moveEffect } from "../turns/move-effect";
import { acknowledgedIn } from "../turns/whose-turn";
import type { DecisionKind, DecisionOf } from "./decision";

/** What has to be so in a tray for a decision to be about anything in it: it is looked up, and refused with its reason. */
export type Need =
  /** Somebody who may look into the tray. */
  | { readonly kind: "member"; readonly id: MemberId }
  /** Somebody who may decide there, and is there now unless it is meant even if they are away. */
  | { readonly kind: "owner"; readonly id: MemberId; readonly evenIfAway: boolean }
  /** A group of which somebody is there now. */
  | { readonly kind: "group"; readonly id: GroupId }
  /** People whom a note names: all of them may read it. */
  | { readonly kind: "told"; readonly ids: readonly MemberId[] }
  /** A category of the tray, and not a retired one where it is to be given. */
  | { readonly kind: "category"; readonly id: CategoryId; readonly toGive: boolean }
  /** A record that the member may know of, and not a closed one where something is to be filed on it. */
  | { readonly kind: "record"; readonly id: RecordId; readonly toFile: boolean }
  /** A moment that is not over; null is none, which is right as well. */
  | { readonly kind: "to-come"; readonly at: Instant | null };

/** What is declared of a kind of decision. There is no default: a kind without its entry is no program. */
type Declared<Kind extends DecisionKind> = {
  /** The first that is not so is why it is refused. */
  readonly needs: (decision: DecisionOf<Kind>) => readonly Need[];
  /** What it does to a conversation with this docket and these facts; how each effect is undone, `core/journal` says. */
  readonly plan: (decision: DecisionOf<Kind>, now: Docket, facts: ConversationFacts) => Effect[];
};

const nothing = (): readonly Need[] => [];

const DECISIONS: { readonly [Kind in DecisionKind]: Declared<Kind> } = {
  assign: {
    needs: ({ ownerId, evenIfAway = false }) => (ownerId === null ? [] : [{ kind: "owner", id: ownerId, evenIfAway }]),
    plan: ({ ownerId, note = "" }, now) => {
      const assigned: Effect[] = now.ownerId === ownerId ? [] : [{ kind: "assigned", ownerId }];
      if (note === "") return assigned;
      return [...assigned, { kind: "noted", text: note, ...(ownerId === null ? {} : { mentions: [ownerId] }) }];
    },
  },
  "assign-in-turn": {
    needs: ({ groupId }) => [{ kind: "group", id: groupId }],
    plan: () => [],
  },
  follow: {
    needs: ({ memberId, follows }) => (follows ? [{ kind: "member", id: memberId }] : []),
    plan: ({ memberId, follows }, now) => {
      if (now.followerIds.includes(memberId) === follows) return [];
      return [{ kind: follows ? "followed" : "unfollowed", memberId }];
    },
  },
  categorise: {
    needs: ({ categoryId, give }) => [{ kind: "category", id: categoryId, toGive: give }],
    plan: ({ categoryId, give }, now) => {
      if (now.categoryIds.includes(categoryId) === give) return [];
      return [{ kind: give ? "categorised" : "uncategorised", categoryId }];
    },
  },
  file: {
    needs: ({ recordId }) => [{ kind: "record", id: recordId, toFile: true }],
    plan: ({ kind: _, settle, part, ...filing }, now, { messages }) => {
      if (part !== undefined) {
        const isHere = messages.some(({ id }) => id === part.messageId);
        return isHere && !isPartOn(now, filing.recordId, part) ? [{ kind: "part-filed", ...filing, ...part }] : [];
      }
      const filed: Effect[] = now.recordIds.includes(filing.recordId) ? [] : [{ kind: "filed", ...filing }];
      return settle && now.standing.kind !== "settled" ? [...filed, { kind: "settled" }] : filed;
    },
  },
  particulars: {
    needs: ({ recordId }) => [{ kind: "record", id: recordId, toFile: false }],
    plan: ({ recordId, fields = {} }, now, { entries }) => {
      const known = now.recordIds.includes(recordId) ? filingOn(entries, recordId) : null;
      const isSo = known === null || sameValues(known.fields ?? {}, fields);
      return isSo ? [] : [{ kind: "particulars-set", recordId, fields }];
    },
  },
  unfile: {
    needs: ({ recordId }) => [{ kind: "record", id: recordId, toFile: false }],
    plan: ({ recordId, part }, now) => {
      if (part !== undefined) return isPartOn(now, recordId, part) ? [{ kind: "part-unfiled", recordId, ...part }] : [];
      return now.recordIds.includes(recordId) ? [{ kind: "unfiled", recordId }] : [];
    },
  },
  keep: {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "our-move" ? [] : [{ kind: "kept" }]),
  },
  settle: {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "settled" ? [] : [{ kind: "settled" }]),
  },
  bin: {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "bin" ? [] : [{ kind: "binned" }]),
  },
  restore: {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "bin" || now.standing.kind === "junk" ? [{ kind: "restored" }] : []),
  },
  junk: {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "junk" ? [] : [{ kind: "junked" }]),
  },
  rest: {
    needs: ({ until }) => [{ kind: "to-come", at: until }],
    plan: ({ until, evenIfAnswered = false }) => [
      { kind: "rested", until, ...(evenIfAnswered ? { evenIfAnswered } : {}) },
    ],
  },
  hold: {
    needs: nothing,
    plan: ({ roundId, round }, now, facts) => (isHoldable(now, facts) ? [{ kind: "held", roundId, round }] : []),
  },
  "let-in": {
    needs: nothing,
    plan: (_, now) => (now.standing.kind === "held" ? [{ kind: "let-in" }] : []),
  },
  urgency: {
    needs: nothing,
    plan: ({ urgency }, now) => (now.urgency === urgency ? [] : [{ kind: "urgency-set", urgency }]),
  },
  "follow-up": {
    needs: ({ dueAt, forMember }) => [
      { kind: "to-come", at: dueAt },
      { kind: "member", id: forMember },
    ],
    plan: ({ kind: _, ...followUp }) => [{ kind: "follow-up-set", ...followUp }],
  },
  "follow-up-done": {
    needs: nothing,
    plan: ({ followUpId }, now) => {
      const open = now.followUps.some(({ id, doneAt }) => id === followUpId && doneAt === null);
      return open ? [{ kind: "follow-up-done", followUpId }] : [];
    },
  },
  "follow-up-clear": {
    needs: nothing,
    plan: ({ followUpId }, now) =>
      now.followUps.some(({ id }) => id === followUpId) ? [{ kind: "follow-up-cleared", followUpId }] : [],
  },
  // A new date for the same question replaces the old one.
  expect: {
    needs: ({ until, colleagueId }) =>
      colleagueId === undefined ? [{ kind: "to-come", at: until }] : [{ kind: "member", id: colleagueId }],
    plan: (decision, now, facts) => [
      ...(decision.besides === true ? [] : withdrawals(now)),
      expectedBy(decision, peopleOutside(facts), lastOfOurs(facts)),
    ],
  },
  extend: {
    needs: ({ until }) => [{ kind: "to-come", at: until }],
    plan: ({ expectationId, until }, now) => {
      const one = now.expectations.find(({ id }) => id === expectationId);
      return one !== undefined && isOpen(one) && one.until !== until
        ? [{ kind: "extended", expectationId, until }]
        : [];
    },
  },
  withdraw: {
    needs: nothing,
    plan: ({ expectationId }, now) =>
      withdrawals({ expectations: now.expectations.filter(({ id }) => id === expectationId) }),
  },
  acknowledge: {
    needs: nothing,
    plan: ({ messageId }, _, { messages, entries }) => {
      const theirs = messages.filter((one) => moveEffect(one) === "they-wrote").toSorted((a, b) => a.at - b.at);
      const named = messageId === null ? theirs.at(-1) : theirs.find(({ id }) => id === messageId);
      if (named === undefined || acknowledgedIn(entries).has(named.id)) return [];
      return [{ kind: "acknowledged", messageId: named.id }];
    },
  },
  expire: {
    needs: ({ at }) => [{ kind: "to-come", at }],
    plan: ({ at }, now) => (now.expiresAt === at ? [] : [{ kind: "expiry-set", at }]),
  },
  "no-answer": {
    needs: nothing,
    plan: (_, now) => [
      ...(now.turn.kind === "nobody" ? [] : [{ kind: "turn-set", turn: "nobody" } as const]),
      ...(now.standing.kind === "settled" ? [] : [{ kind: "settled" } as const]),
    ],
  },
  "stop-expecting": {
    needs: nothing,
    plan: (_, now) => withdrawals(now),
  },
  note: {
    needs: ({ mentions = [] }) => [{ kind: "told", ids: mentions }],
    plan: ({ text, mentions = [] }) => [{ kind: "noted", text, ...(mentions.length === 0 ? {} : { mentions }) }],
  },
  "edit-note": {
    needs: ({ mentions = [] }) => [{ kind: "told", ids: mentions }],
    plan: ({ kind: _, ...edited }) => [{ kind: "note-edited", ...edited }],
  },
};

// The table's type ties each entry to its decision; an index by a union loses that tie.
const declared = <Kind extends DecisionKind>({ kind }: DecisionOf<Kind>) => DECISIONS[kind as Kind] as Declared<Kind>;

/** What a decision needs in the tray where it is taken. */
export function needsOf<Kind extends DecisionKind>(decision: DecisionOf<Kind>): readonly Need[] {
  return declared<Kind>(decision).needs(decision);
}

/** What a decision would do to a conversation: nothing where it is so already, so that deciding twice is deciding once. */
export function planDecision<Kind extends DecisionKind>(
  decision: DecisionOf<Kind>,
  facts: ConversationFacts,
): Effect[] {
  return declared<Kind>(decision).plan(decision, deriveDocket(facts), facts);
}

// What its newest message brought into the tray, and nobody decided about since; what was there before stays in sight.
function isHoldable({ standing }: Docket, facts: ConversationFacts): boolean {
  const newest = Math.max(...facts.messages.map(({ version }) => version));
  const before = {
    ...facts,
    messages: facts.messages.filter(({ version }) => version < newest),
    entries: facts.entries.filter(({ version }) => version < newest),
  };
  const was = before.messages.length === 0 ? "held" : deriveFlow(before).standing.kind;
  const isDecided = facts.entries.some(({ version, by }) => version > newest && by !== null);
  return isInSight(standing.kind) && !isInSight(was) && !isDecided;
}

function isInSight(kind: StandingKind): boolean {
  return kind !== "held" && kind !== "settled" && kind !== "bin" && kind !== "junk";
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
  }: Pick<DecisionOf<"expect">, "until" | "expectationId" | "whom" | "colleagueId">,
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

/** Whether effects would settle a conversation that is filed nowhere, and file it nowhere either. */
export function settlesUnfiled(effects: readonly Effect[], facts: ConversationFacts): boolean {
  const does = (kind: Effect["kind"]) => effects.some((effect) => effect.kind === kind);
  return does("settled") && !does("filed") && deriveDocket(facts).recordIds.length === 0;
}
