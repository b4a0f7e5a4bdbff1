import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(timeTexts);

/** How soon a conversation wants attention, least first: what is for reading only, to what is for today. */
export const URGENCIES = ["reading", "no-rush", "days", "today"] as const;
export type Urgency = (typeof URGENCIES)[number];

/** What has not been given an urgency has this one. */
export const USUAL_URGENCY: Urgency = "no-rush";

export const URGENCY_NAMES: Readonly<Record<Urgency, Said>> = {
  today: said("time.todayAsUrgency"),
  days: said("time.withinDays"),
  "no-rush": said("time.noRush"),
  reading: said("time.reading"),
};

/** The number of pace marks of an urgency, three for today to none for reading; also its place in order. */
export function urgencyRank(urgency: Urgency): number {
  return URGENCIES.indexOf(urgency);
}

/** The urgency of so many pace marks; the usual one for a number that there is not. */
export function urgencyOfRank(pace: number): Urgency {
  return URGENCIES[pace] ?? USUAL_URGENCY;
}

/** The next step of one key: one more pace mark, and after three none again. */
export function nextUrgency(urgency: Urgency): Urgency {
  return urgencyOfRank((urgencyRank(urgency) + 1) % URGENCIES.length);
}

/** True for the name of an urgency as it appears in a form or a URL. */
export function isUrgency(text: string): text is Urgency {
  return (URGENCIES as readonly string[]).includes(text);
}
