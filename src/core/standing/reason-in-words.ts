import { assertNever } from "../kernel/assert-never";
import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { dayAndTime, dayInWords, overdueInWords } from "../time/day-words";
import type { Standing } from "./standing";

/** Who reads the words, when and where, and what the colleagues are called. */
export type Reader = {
  readonly memberId: MemberId;
  readonly now: Instant;
  /** IANA name of the reader's time zone. */
  readonly zone: string;
  readonly nameOf: (id: MemberId) => string;
};

/** Why a conversation stands where it does, as one plain sentence for this reader. */
export function reasonInWords(standing: Standing, reader: Reader): string {
  const since = dayAndTime(standing.since, reader.now, reader.zone);
  const { reason } = standing;
  const who = (by: MemberId | null) => (by === null ? "the tray" : by === reader.memberId ? "you" : reader.nameOf(by));
  switch (reason.kind) {
    case "arrived":
      return `New from outside since ${since}: ${reason.who} wrote.`;
    case "replied":
      return `Since ${since}: ${reason.who} wrote.`;
    case "bounced": {
      const whom = reason.recipients.length === 0 ? "a recipient" : reason.recipients.join(", ");
      return `Since ${since}: our message could not be delivered to ${whom}.`;
    }
    case "not-sent":
      return `Since ${since}: our message could not be sent. ${reason.detail}`;
    case "taken":
      return reason.by === reason.ownerId
        ? `Since ${since}: ${who(reason.by)} took it.`
        : `Since ${since}: ${who(reason.by)} gave it to ${who(reason.ownerId)}.`;
    case "kept":
      return `Since ${since}: ${who(reason.by)} said there is something to do.`;
    case "asked":
      return `Since ${since}: ${askedInWords(reason, who(reason.by), reader)}`;
    case "withdrawn":
      return `Since ${since}: ${who(reason.by)} stopped waiting for the reply.`;
    case "rested":
      return `Since ${since}: ${who(reason.by)} put it to rest ${restInWords(reason, reader)}.`;
    case "rest-ended":
      return `Since ${since}: its rest is over; ${who(reason.by)} put it to rest ${dayInWords(reason.restedAt, reader.now, reader.zone)}.`;
    case "settled":
      return `Since ${since}: ${who(reason.by)} settled it.`;
    case "lapsed":
      return `Lapsed ${since}: it mattered until then only.`;
    case "answered":
      return `Since ${since}: ${who(reason.by)} answered without asking for a reply.`;
    case "binned":
      return `Since ${since}: ${who(reason.by)} put it in the bin.`;
    case "junked":
      return `Since ${since}: ${who(reason.by)} marked it as junk.`;
    case "restored":
      return `Since ${since}: ${who(reason.by)} brought it back.`;
    default:
      return assertNever(reason);
  }
}

function restInWords(reason: Extract<Standing["reason"], { kind: "rested" }>, { now, zone }: Reader): string {
  if (reason.until === null) return "until somebody writes";
  const until = `until ${dayAndTime(reason.until, now, zone)}`;
  return reason.evenIfAnswered === true ? `${until}, whoever writes meanwhile` : `${until}, or until somebody writes`;
}

function askedInWords(reason: Extract<Standing["reason"], { kind: "asked" }>, who: string, reader: Reader): string {
  const asked =
    reason.askedAt === null
      ? `${who === "you" ? "you expect" : `${who} expects`} a reply`
      : `${who === "you" ? "your" : `${who}'s`} answer asked for a reply`;
  if (reason.until === null) return `${asked}.`;
  const over = overdueInWords(reason.until, reader.now, reader.zone);
  return `${asked} by ${dayInWords(reason.until, reader.now, reader.zone)}${over === null ? "" : `, ${over}`}.`;
}
