import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import type { Instant } from "../kernel/instant";
import { dayAndTimeInFull } from "../time/day-words";
import { ON_ARRIVAL, type Rule } from "./rule";

const said = saidOf(rulesTexts);

/** When a rule is asked, where that is not whenever a message comes: its moment and its span, by the clock of a zone (IANA). */
export function timesInWords({ times = ON_ARRIVAL }: Pick<Rule, "times">, now: Instant, zone: string): Said[] {
  const { moment, from, until } = times;
  return [
    ...(moment === "arrival" ? [] : [said("rules.atMoment", { moment })]),
    ...(from === null ? [] : [said("rules.fromThen", { at: dayAndTimeInFull(from, now, zone) })]),
    ...(until === null ? [] : [said("rules.untilThen", { at: dayAndTimeInFull(until, now, zone) })]),
  ];
}
