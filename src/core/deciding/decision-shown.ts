import { decidingTexts } from "../../texts/en/deciding";
import { type Said, saidOf } from "../../texts/said";
import type { CategoryId, GroupId, MemberId, RecordId } from "../kernel/ids";
import { URGENCY_NAMES, type Urgency } from "../kernel/urgency";
import type { StandingKind } from "../standing/standing";
import type { ChosenKind, RowSelection } from "./decision";

const said = saidOf(decidingTexts);

/** What a list shows of a conversation that a decision can change at once. */
export type ShownParts = {
  readonly ownerId: MemberId | null;
  readonly followerIds: readonly MemberId[];
  readonly categoryIds: readonly CategoryId[];
  readonly recordCodes: readonly string[];
  readonly urgency: Urgency;
};

/** What things are called; a record by its code. */
export type DecisionNames = {
  readonly member: (id: MemberId) => string;
  readonly group: (id: GroupId) => string;
  readonly category: (id: CategoryId) => string;
  readonly record: (id: RecordId) => string;
};

/**
 * What is declared of a kind of decision for those who see it before it is carried out; what the store says afterwards
 * counts. It stands apart from what is planned and needed so that a browser loads nothing of that.
 */
type Shown<Kind extends ChosenKind> = {
  /** The standing that it leads to from another; null when it moves nothing. */
  readonly leadsTo: (decision: RowSelection<Kind>, from: StandingKind) => StandingKind | null;
  /** What is otherwise with the conversation. */
  readonly changes: (decision: RowSelection<Kind>, now: ShownParts, names: DecisionNames) => Partial<ShownParts>;
  /** What was decided, in the few words that the message with the Undo button has. */
  readonly said: (decision: RowSelection<Kind>, names: DecisionNames) => Said;
};

const isUndecided = (standing: StandingKind) => standing === "to-sort" || standing === "held";
const nowhere = () => null;
const unchanged = () => ({});

const SHOWN: { readonly [Kind in ChosenKind]: Shown<Kind> } = {
  assign: {
    leadsTo: ({ ownerId }, from) => (isUndecided(from) && ownerId !== null ? "our-move" : null),
    changes: ({ ownerId }) => ({ ownerId }),
    said: ({ ownerId }, { member }) =>
      ownerId === null ? said("deciding.noOwner") : said("deciding.assignedTo", { member: member(ownerId) }),
  },
  "assign-in-turn": {
    leadsTo: (_, from) => (isUndecided(from) ? "our-move" : null),
    // Whose turn it is, only the store knows.
    changes: unchanged,
    said: ({ groupId }, { group }) => said("deciding.inTurnTo", { group: group(groupId) }),
  },
  follow: {
    leadsTo: nowhere,
    changes: ({ memberId, follows }, { followerIds }) => ({
      followerIds: withOrWithout(followerIds, memberId, follows),
    }),
    said: ({ follows }) => (follows ? said("deciding.followed") : said("deciding.noLongerFollowed")),
  },
  categorise: {
    leadsTo: nowhere,
    changes: ({ categoryId, give }, { categoryIds }) => ({ categoryIds: withOrWithout(categoryIds, categoryId, give) }),
    said: ({ categoryId, give }, { category }) =>
      give
        ? said("deciding.categoryAdded", { category: category(categoryId) })
        : said("deciding.categoryRemoved", { category: category(categoryId) }),
  },
  file: {
    leadsTo: ({ settle }) => (settle ? "settled" : null),
    changes: ({ recordId, part }, { recordCodes }, { record }) =>
      part === undefined ? { recordCodes: withOrWithout(recordCodes, record(recordId), true) } : {},
    said: ({ recordId, settle }, { record }) =>
      settle
        ? said("deciding.filedToAndSettled", { record: record(recordId) })
        : said("deciding.filedTo", { record: record(recordId) }),
  },
  particulars: {
    leadsTo: nowhere,
    changes: unchanged,
    said: ({ recordId }, { record }) => said("deciding.particularsOnChanged", { record: record(recordId) }),
  },
  unfile: {
    leadsTo: nowhere,
    changes: ({ recordId, part }, { recordCodes }, { record }) =>
      part === undefined ? { recordCodes: withOrWithout(recordCodes, record(recordId), false) } : {},
    said: ({ recordId }, { record }) => said("deciding.removedFrom", { record: record(recordId) }),
  },
  keep: { leadsTo: () => "our-move", changes: unchanged, said: () => said("deciding.ourMove") },
  settle: { leadsTo: () => "settled", changes: unchanged, said: () => said("deciding.settled") },
  bin: { leadsTo: () => "bin", changes: unchanged, said: () => said("deciding.movedToBin") },
  restore: { leadsTo: () => "to-sort", changes: unchanged, said: () => said("deciding.broughtBack") },
  junk: { leadsTo: () => "junk", changes: unchanged, said: () => said("deciding.junk") },
  rest: { leadsTo: () => "resting", changes: unchanged, said: () => said("deciding.resting") },
  "let-in": {
    leadsTo: (_, from) => (from === "held" ? "to-sort" : null),
    changes: unchanged,
    said: () => said("deciding.letIn"),
  },
  urgency: {
    leadsTo: nowhere,
    changes: ({ urgency }) => ({ urgency }),
    said: ({ urgency }) => URGENCY_NAMES[urgency],
  },
  "follow-up": { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.followUpSet") },
  "follow-up-done": { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.followUpDone") },
  "follow-up-clear": { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.followUpCleared") },
  expect: { leadsTo: () => "waiting", changes: unchanged, said: () => said("deciding.waitingForReply") },
  extend: { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.givenMoreTime") },
  // Others may be awaited still.
  withdraw: { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.noLongerWaiting") },
  "stop-expecting": {
    leadsTo: (_, from) => (from === "waiting" ? "our-move" : null),
    changes: unchanged,
    said: () => said("deciding.noLongerWaiting"),
  },
  acknowledge: { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.noAnswerYet") },
  expire: {
    leadsTo: nowhere,
    changes: unchanged,
    said: ({ at }) => (at === null ? said("deciding.noExpiry") : said("deciding.expirySet")),
  },
  "no-answer": { leadsTo: () => "settled", changes: unchanged, said: () => said("deciding.noAnswerNeeded") },
  note: { leadsTo: nowhere, changes: unchanged, said: () => said("deciding.noteAdded") },
};

// The table's type ties each entry to its decision; an index by a union loses that tie.
const shown = <Kind extends ChosenKind>(decision: RowSelection<Kind>) => SHOWN[decision.kind as Kind] as Shown<Kind>;

/** The standing that a decision leads to from another; null when it moves nothing. */
export function resultingStanding<Kind extends ChosenKind>(
  decision: RowSelection<Kind>,
  from: StandingKind,
): StandingKind | null {
  return shown(decision).leadsTo(decision, from);
}

/** A conversation as a list will show it once it is decided. */
export function foreseen<Kind extends ChosenKind, Parts extends ShownParts>(
  decision: RowSelection<Kind>,
  now: Parts,
  names: DecisionNames,
): Parts {
  return { ...now, ...shown(decision).changes(decision, now, names) };
}

/** What was decided, in a few words. */
export function decisionInWords<Kind extends ChosenKind>(decision: RowSelection<Kind>, names: DecisionNames): Said {
  return shown(decision).said(decision, names);
}

// What is there already keeps its place, in a set of which each member stands once.
function withOrWithout<T>(all: readonly T[], one: T, isIn: boolean): readonly T[] {
  if (isIn) return all.includes(one) ? all : [...all, one];
  return all.filter((other) => other !== one);
}
