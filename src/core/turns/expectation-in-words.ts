import { standingTexts } from "../../texts/en/standing";
import { type Listed, saidOf, type Wording } from "../../texts/said";
import type { EmailAddress } from "../kernel/email-address";
import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { dayInWords, overdueInWords } from "../time/day-words";
import { type Expectation, isOpen, stillAwaited } from "./expectations";

const said = saidOf(standingTexts);

/** What people are called, and when and where one reads. */
export type ExpectationReader = {
  readonly person: (address: EmailAddress) => string;
  readonly member: (id: MemberId) => string;
  readonly now: Instant;
  readonly zone: string;
};

/** From whom it is awaited: "Perpetua Vane", "each of Otto Quayle and Perpetua Vane", "anybody at vanehouse.example". */
export function whomInWords(expectation: Expectation, { person, member }: ExpectationReader): Wording {
  const { from, need, organisation, colleagueId } = expectation;
  if (colleagueId !== null) return listed([member(colleagueId)], "and");
  if (organisation !== null) return said("standing.anybodyAt", { organisation });
  if (from.length === 0) return said("standing.anybody");
  const names = from.map(person);
  return need === "each" && names.length > 1
    ? said("standing.eachOf", { names: listed(names, "and") })
    : listed(names, "or");
}

/** What became of it: "by Thursday, 2 days overdue", "2 of 3 have answered, still Otto Quayle", "answered". */
export function stateInWords(expectation: Expectation, reader: ExpectationReader): Wording {
  const { state, from, until, movedBy, answers, failed } = expectation;
  if (!isOpen(expectation)) return ENDINGS[state as keyof typeof ENDINGS];
  const parts: Wording[] = [];
  if (state === "in-part") {
    const count = new Set(answers.map((answer) => answer.of)).size;
    const left = listed(stillAwaited(expectation).map(reader.person), "and");
    parts.push(said("standing.haveAnswered", { count, all: from.length, left }));
  }
  if (failed.length > 0)
    parts.push(said("standing.thoseCouldNotBeReached", { names: listed(failed.map(reader.person), "and") }));
  parts.push(...dateInWords(until, reader));
  if (movedBy !== null) parts.push(said("standing.movedToTheirReturn"));
  return { all: parts, by: "comma" };
}

const ENDINGS = {
  answered: said("standing.hasAnswered"),
  withdrawn: said("standing.noLongerAwaited"),
  impossible: said("standing.couldNotBeReached"),
};

function dateInWords(until: Instant | null, { now, zone }: ExpectationReader): Wording[] {
  if (until === null) return [said("standing.withoutADate")];
  const over = overdueInWords(until, now, zone);
  return [said("standing.byDay", { day: dayInWords(until, now, zone) }), ...(over === null ? [] : [over])];
}

function listed(names: readonly string[], by: "and" | "or"): Listed {
  return { all: names, by };
}
