import { standingTexts } from "../../texts/en/standing";
import { type Said, type Sayable, saidOf, type Wording } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { dayAndTime, dayInWords, overdueInWords } from "../time/day-words";
import type { Standing } from "./standing";

const said = saidOf(standingTexts);

/** Who reads the words, when and where, and what the colleagues are called. */
export type Reader = {
  readonly memberId: MemberId;
  readonly now: Instant;
  /** IANA name of the reader's time zone. */
  readonly zone: string;
  readonly nameOf: (id: MemberId) => string;
};

/** Why a conversation stands where it does, as one plain sentence for this reader. */
export function reasonInWords({ reason, ...standing }: Standing, reader: Reader): Said {
  const since = dayAndTime(standing.since, reader.now, reader.zone);
  const who = (by: MemberId | null): Sayable =>
    by === null ? said("standing.theTray") : by === reader.memberId ? said("standing.you") : reader.nameOf(by);
  switch (reason.kind) {
    case "arrived":
      return said("standing.arrived", { since, who: reason.who });
    case "replied":
      return said("standing.replied", { since, who: reason.who });
    case "bounced":
      return said("standing.bounced", {
        since,
        whom: reason.recipients.length === 0 ? said("standing.aRecipient") : { all: reason.recipients, by: "comma" },
      });
    case "not-sent":
      return said("standing.notSent", { since, detail: reason.detail });
    case "taken":
      return reason.by === reason.ownerId
        ? said("standing.taken", { since, who: who(reason.by) })
        : said("standing.given", { since, who: who(reason.by), owner: who(reason.ownerId) });
    case "kept":
      return said("standing.kept", { since, who: who(reason.by) });
    case "asked":
      return askedInWords(reason, since, reader);
    case "withdrawn":
      return said("standing.withdrawn", { since, who: who(reason.by) });
    case "rested":
      return said("standing.rested", { since, who: who(reason.by), until: restInWords(reason, reader) });
    case "rest-ended":
      return said("standing.restEnded", {
        since,
        who: who(reason.by),
        day: dayInWords(reason.restedAt, reader.now, reader.zone),
      });
    case "held":
      return said("standing.heldFor", { since, round: reason.round });
    case "let-in":
      return reason.by === null
        ? said("standing.letInAtItsHour", { since, round: reason.round })
        : said("standing.letIn", { since, who: who(reason.by), round: reason.round });
    case "settled":
      return said("standing.settledBy", { since, who: who(reason.by) });
    case "lapsed":
      return said("standing.lapsed", { since });
    case "answered":
      return said("standing.answered", { since, who: who(reason.by) });
    case "binned":
      return said("standing.binned", { since, who: who(reason.by) });
    case "junked":
      return said("standing.junked", { since, who: who(reason.by) });
    case "restored":
      return said("standing.restored", { since, who: who(reason.by) });
    default:
      return assertNever(reason);
  }
}

function restInWords(reason: Extract<Standing["reason"], { kind: "rested" }>, { now, zone }: Reader): Said {
  if (reason.until === null) return said("standing.untilSomebodyWrites");
  const until = dayAndTime(reason.until, now, zone);
  return reason.evenIfAnswered === true
    ? said("standing.untilWhoeverWrites", { until })
    : said("standing.untilOrSomebodyWrites", { until });
}

function askedInWords(reason: Extract<Standing["reason"], { kind: "asked" }>, since: Wording, reader: Reader): Said {
  const { memberId, nameOf, now, zone } = reader;
  const by = reason.by === null ? "tray" : reason.by === memberId ? "you" : "other";
  const who = reason.by === null ? "" : nameOf(reason.by);
  const asked =
    reason.askedAt === null ? said("standing.expects", { by, who }) : said("standing.answerAsked", { by, who });
  if (reason.until === null) return said("standing.asked", { since, asked });
  const day = dayInWords(reason.until, now, zone);
  const overdue = overdueInWords(reason.until, now, zone);
  return overdue === null
    ? said("standing.askedBy", { since, asked, day })
    : said("standing.askedByAndOverdue", { since, asked, day, overdue });
}
