import { readInstant } from "../core/kernel/instant";
import { datesIn } from "../core/worktime/dates-in-text";
import { usualHours } from "../core/worktime/working-hours";
import { asksIn, promisesIn } from "../core/writing/detected-questions";
import { demoStories } from "./build-world";
import { MARKS, type Marks } from "./marks";
import { ZONE } from "./world";

/** How well something is found: of what was found how much is marked, of what is marked how much was found. */
export type Score = { readonly found: number; readonly marked: number; readonly right: number };

/** The share of what was found that is right; 1 where nothing was. */
export const precision = ({ found, right }: Score) => (found === 0 ? 1 : right / found);
/** The share of what is there that was found; 1 where nothing is. */
export const recall = ({ marked, right }: Score) => (marked === 0 ? 1 : right / marked);

const HOURS = usualHours(ZONE);
// A Wednesday morning: what the dates are seen from.
const NOW = readInstant("2026-11-25T09:30:00Z");

/** The texts that the demo's world sends, each once. */
export function sentTexts(): string[] {
  const steps = demoStories().flatMap(({ steps: all }) => all);
  return [...new Set(steps.flatMap((step) => (step.kind === "we" ? [step.text] : [])))];
}

/** How well asks, promises and dates are found in what the demo's world sends, against the marks made by hand. */
export function textScores(): Readonly<Record<keyof Marks, Score>> {
  if (NOW === null) throw new Error("the moment is none");
  const now = NOW;
  const finders: Readonly<Record<keyof Marks, (text: string) => string[]>> = {
    asks: (text) => asksIn(text, now, HOURS).map((one) => one.text),
    promises: (text) => promisesIn(text, now, HOURS).map((one) => one.text),
    dates: (text) => datesIn(text, now, HOURS).map(({ words }) => words.replace(/^(?:on|by|the) (?:the )?/i, "")),
  };
  const score = (kind: keyof Marks): Score => {
    const all = sentTexts().map((text) => {
      const [found, marked] = [finders[kind](text), MARKS[text]?.[kind] ?? []];
      return { found: found.length, marked: marked.length, right: found.filter((one) => marked.includes(one)).length };
    });
    const sum = (part: keyof Score) => all.reduce((total, one) => total + one[part], 0);
    return { found: sum("found"), marked: sum("marked"), right: sum("right") };
  };
  return { asks: score("asks"), promises: score("promises"), dates: score("dates") };
}
