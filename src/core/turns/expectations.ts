import type { Awaited } from "../journal/awaited";
import type { JournalEntry } from "../journal/entry";
import { domainOf, type EmailAddress } from "../kernel/email-address";
import type { ExpectationId, MemberId, MessageId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";
import { type MoveEffect, moveEffect } from "./move-effect";
import { acknowledgedIn } from "./whose-turn";

/**
 * What became of it: open; in part, when some of each have answered; answered; withdrawn by hand; impossible, when nobody
 * is left who could. Overdue is no state of its own: it is open when its date is past.
 */
type ExpectationState = "open" | "in-part" | "answered" | "withdrawn" | "impossible";

/** What we await in one conversation, and what has become of it. */
export type Expectation = Awaited & {
  readonly id: ExpectationId;
  readonly madeAt: Instant;
  readonly madeBy: MemberId | null;
  /** Our message that asked; null when it was made by hand. */
  readonly messageId: MessageId | null;
  readonly until: Instant | null;
  /** The automatic reply that moved `until` to when its writer is back; null when nobody's did. */
  readonly movedBy: MessageId | null;
  readonly state: ExpectationState;
  /** The messages that answered, in order of time, each with whose answer it is. */
  readonly answers: readonly { readonly messageId: MessageId; readonly of: EmailAddress }[];
  /** Those of the named who could not be reached. */
  readonly failed: readonly EmailAddress[];
};

/** A message as far as expectations go. */
export type AwaitedMessage = {
  readonly id: MessageId;
  /** When it was written, as far as that can be believed. */
  readonly at: Instant;
  readonly direction: "in" | "out";
  readonly kind: MessageKind;
  readonly from: EmailAddress;
  readonly authorId: MemberId | null;
  readonly failedRecipients: readonly EmailAddress[];
  /** For an automatic reply: when its writer says she is back, where she says so. */
  readonly returnsAt?: Instant | null;
  /** When it stops to matter, where it says so. */
  readonly expiresAt?: Instant | null;
};

/** True for what is still awaited. */
export function isOpen({ state }: Pick<Expectation, "state">): boolean {
  return state === "open" || state === "in-part";
}

/** True for what is still awaited although its date is past. */
export function isOverdue(expectation: Pick<Expectation, "state" | "until">, now: Instant): boolean {
  return isOpen(expectation) && expectation.until !== null && expectation.until < now;
}

/** Those of the named from whom an answer is still to come; none where anybody will do. */
export function stillAwaited({ from, need, answers, failed, state }: Expectation): EmailAddress[] {
  if (state !== "open" && state !== "in-part") return [];
  const answered = need === "each" ? answers.map(({ of }) => of) : [];
  return from.filter((one) => !failed.includes(one) && !answered.includes(one));
}

/** Whose answer a message from an address would be; null when nobody's whom we await. */
export function answersFor(awaited: Awaited, address: EmailAddress): EmailAddress | null {
  const { from, organisation, aliases, colleagueId } = awaited;
  if (colleagueId !== null) return null;
  if (from.includes(address)) return address;
  const alias = aliases.find((one) => one.address === address && from.includes(one.of));
  if (alias !== undefined) return alias.of;
  if (organisation !== null && domainOf(address) === organisation)
    return from.find((one) => domainOf(one) === organisation) ?? address;
  return from.length === 0 && organisation === null ? address : null;
}

/**
 * What became of everything that was awaited: a fold over messages and decisions in the order of time, so that the order in
 * which mail arrives makes no difference. In the order in which they were made.
 *
 * A message by a person answers when it was written after the expectation was made and is from somebody we await; one that
 * a member called a mere acknowledgement answers nothing. An automatic reply answers nothing, and moves the date to when
 * its writer says she is back. A delivery failure takes its recipient out.
 */
export function expectationsOf(messages: readonly AwaitedMessage[], entries: readonly JournalEntry[]): Expectation[] {
  const made = entries.filter(({ effect }) => effect.kind === "expected").toSorted((a, b) => a.version - b.version);
  if (made.length === 0) return [];
  const acknowledged = acknowledgedIn(entries);
  const written = messages
    .filter(({ id }) => !acknowledged.has(id))
    .map((message): Step => {
      const isAfter = (entry: JournalEntry) => message.at > entry.at;
      return { at: message.at, order: `m${message.id}`, isAfter, apply: (one) => withMessage(one, message) };
    });
  const decided = entries.map((entry): Step => {
    const isAfter = ({ version }: JournalEntry) => entry.version > version;
    return { at: entry.at, order: `e${inOrder(entry)}`, isAfter, apply: (one) => withEntry(one, entry) };
  });
  const steps = [...written, ...decided].toSorted((a, b) => a.at - b.at || (a.order < b.order ? -1 : 1));
  const found = entries.flatMap(({ effect }) => (effect.kind === "also-awaited" ? [effect] : []));
  return made.map((entry) => {
    let expectation = madeBy(entry, found);
    for (const { isAfter, apply } of steps) if (isAfter(entry)) expectation = apply(expectation);
    return expectation;
  });
}

const DIGITS_OF_A_VERSION = 10;
const inOrder = ({ version }: JournalEntry) => String(version).padStart(DIGITS_OF_A_VERSION, "0");

type Step = {
  readonly at: Instant;
  /** Between steps of one moment. */
  readonly order: string;
  readonly isAfter: (made: JournalEntry) => boolean;
  readonly apply: (one: Expectation) => Expectation;
};

type FoundAddresses = Extract<JournalEntry["effect"], { kind: "also-awaited" }>;

// An address that came to be known later was hers before.
function madeBy({ at, by, effect }: JournalEntry, found: readonly FoundAddresses[]): Expectation {
  if (effect.kind !== "expected") throw new Error(`${effect.kind} makes no expectation`);
  const { expectationId: id, from, until, messageId, need = "any", organisation = null, colleagueId = null } = effect;
  return {
    id,
    from,
    need,
    organisation,
    colleagueId,
    aliases: [
      ...(effect.aliases ?? []),
      ...found.filter((one) => one.expectationId === id).flatMap((one) => one.aliases),
    ],
    madeAt: at,
    madeBy: by,
    messageId,
    until,
    movedBy: null,
    state: "open",
    answers: [],
    failed: [],
  };
}

const APPLY: Readonly<Record<MoveEffect, (one: Expectation, message: AwaitedMessage) => Expectation>> = {
  "they-wrote": answered,
  "we-wrote": (one, { authorId }) => (authorId === null ? one : answeredInside(one, authorId)),
  bounced: bounced,
  none: movedOn,
};

function withMessage(one: Expectation, message: AwaitedMessage): Expectation {
  return isOpen(one) ? APPLY[moveEffect(message)](one, message) : one;
}

function answered(one: Expectation, { id, from }: AwaitedMessage): Expectation {
  const of = answersFor(one, from);
  if (of === null) return one;
  return settledBy({ ...one, answers: [...one.answers, { messageId: id, of }] });
}

function bounced(one: Expectation, { failedRecipients }: AwaitedMessage): Expectation {
  const failed = one.from.filter((address) => failedRecipients.includes(address) || one.failed.includes(address));
  return settledBy({ ...one, failed });
}

// Whether enough of them have answered, or nobody is left who could.
function settledBy(one: Expectation): Expectation {
  const { from, need, answers, failed } = one;
  const of = new Set(answers.map((answer) => answer.of));
  if (need === "any" && of.size > 0) return { ...one, state: "answered" };
  const left = from.filter((address) => !failed.includes(address) && !of.has(address));
  if (from.length > 0 && left.length === 0) return { ...one, state: of.size > 0 ? "answered" : "impossible" };
  return { ...one, state: of.size > 0 ? "in-part" : "open" };
}

function movedOn(one: Expectation, message: AwaitedMessage): Expectation {
  const { direction, kind, from, returnsAt = null, id } = message;
  if (direction !== "in" || kind !== "automatic" || returnsAt === null) return one;
  if (answersFor(one, from) === null || (one.until !== null && one.until >= returnsAt)) return one;
  return { ...one, until: returnsAt, movedBy: id };
}

function answeredInside(one: Expectation, memberId: MemberId): Expectation {
  return one.colleagueId === memberId ? { ...one, state: "answered" } : one;
}

function withEntry(one: Expectation, { effect, by }: JournalEntry): Expectation {
  switch (effect.kind) {
    case "withdrawn":
      return effect.expectationId === one.id && isOpen(one) ? { ...one, state: "withdrawn" } : one;
    case "extended":
      return effect.expectationId === one.id ? { ...one, until: effect.until, movedBy: null } : one;
    case "noted":
      return isOpen(one) && by !== null ? answeredInside(one, by) : one;
    default:
      return one;
  }
}
