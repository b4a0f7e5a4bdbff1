import type { EmailAddress } from "../kernel/email-address";
import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { dayInWords, overdueInWords } from "../time/day-words";
import { type Expectation, isOpen, stillAwaited } from "./expectations";

/** What people are called, and when and where one reads. */
export type ExpectationReader = {
  readonly person: (address: EmailAddress) => string;
  readonly member: (id: MemberId) => string;
  readonly now: Instant;
  readonly zone: string;
};

/** From whom it is awaited: "Perpetua Vane", "each of Otto Quayle and Perpetua Vane", "anybody at vanehouse.example". */
export function whomInWords(expectation: Expectation, { person, member }: ExpectationReader): string {
  const { from, need, organisation, colleagueId } = expectation;
  if (colleagueId !== null) return member(colleagueId);
  if (organisation !== null) return `anybody at ${organisation}`;
  if (from.length === 0) return "anybody";
  const names = from.map(person);
  if (names.length === 1) return names.join("");
  return need === "each" ? `each of ${listed(names, "and")}` : listed(names, "or");
}

/** What became of it: "by Thursday, 2 days overdue", "2 of 3 have answered, still Otto Quayle", "answered". */
export function stateInWords(expectation: Expectation, reader: ExpectationReader): string {
  const { state, from, until, movedBy, answers, failed } = expectation;
  if (!isOpen(expectation)) {
    const endings = { answered: "answered", withdrawn: "no longer awaited", impossible: "could not be reached" };
    return endings[state as keyof typeof endings];
  }
  const parts: string[] = [];
  const left = stillAwaited(expectation);
  if (state === "in-part") {
    const of = new Set(answers.map((answer) => answer.of)).size;
    parts.push(`${of} of ${from.length} have answered, still ${listed(left.map(reader.person), "and")}`);
  }
  if (failed.length > 0) parts.push(`${listed(failed.map(reader.person), "and")} could not be reached`);
  parts.push(...dateInWords(until, reader));
  if (movedBy !== null) parts.push("moved to when they are back");
  return parts.join(", ");
}

function dateInWords(until: Instant | null, { now, zone }: ExpectationReader): string[] {
  if (until === null) return ["without a date"];
  const over = overdueInWords(until, now, zone);
  return [`by ${dayInWords(until, now, zone)}`, ...(over === null ? [] : [over])];
}

function listed(names: readonly string[], word: "and" | "or"): string {
  return names.length < 2 ? names.join("") : `${names.slice(0, -1).join(", ")} ${word} ${names.at(-1)}`;
}
