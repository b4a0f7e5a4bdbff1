import { roundsTexts } from "../../texts/en/rounds";
import { type Said, saidOf } from "../../texts/said";
import { readTimeOfDay } from "../worktime/working-hours";
import type { Round } from "./round";

const said = saidOf(roundsTexts);

const MAX_NAME = 40;
const MAX_TIMES = 12;
const DAY_MINUTES = 24 * 60;

/** A round as somebody writes it: its times with commas between. */
export type WrittenRound = { readonly name: string; readonly times: string };

/** What is wrong with a round, by field. */
export type RoundProblems = { readonly name?: Said; readonly times?: Said };

/** A round read from what was written, among the names of the others; or what is wrong with it. */
export function readRound(
  { name: written, times }: WrittenRound,
  others: readonly string[],
): { readonly round: Omit<Round, "id"> } | { readonly problems: RoundProblems } {
  const name = written.trim();
  const read = readTimes(times);
  const problems: RoundProblems = {
    ...named(name, others),
    ...("problem" in read ? { times: read.problem } : {}),
  };
  return Object.keys(problems).length > 0 || "problem" in read ? { problems } : { round: { name, times: read.times } };
}

function named(name: string, others: readonly string[]): Pick<RoundProblems, "name"> {
  if (name === "") return { name: said("rounds.giveItAName") };
  if (name.length > MAX_NAME) return { name: said("rounds.aNameHasAtMost", { most: MAX_NAME }) };
  const isTaken = others.some((other) => other.toLowerCase() === name.toLowerCase());
  return isTaken ? { name: said("rounds.anotherHasThatName") } : {};
}

function readTimes(written: string): { readonly times: number[] } | { readonly problem: Said } {
  const texts = written.split(/[\s,;]+/).filter((text) => text !== "");
  if (texts.length === 0) return { problem: said("rounds.enterAtLeastOneTime") };
  const times = new Set<number>();
  for (const text of texts) {
    const minutes = readTimeOfDay(text);
    if (minutes === null || minutes >= DAY_MINUTES) return { problem: said("rounds.isNoTimeOfDay", { text }) };
    times.add(minutes);
  }
  if (times.size > MAX_TIMES) return { problem: said("rounds.atMostTimes", { most: MAX_TIMES }) };
  return { times: [...times].toSorted((a, b) => a - b) };
}
