import { sieveTexts } from "../../texts/en/sieve";
import { type Said, saidOf } from "../../texts/said";

export const said = saidOf(sieveTexts);

/** A place in a script; both count from one, columns in characters. */
export type Place = { readonly line: number; readonly column: number };

/** What is said of a place in a script. */
export type ScriptProblem = Place & { readonly problem: Said };

/** The script is wrong at a place: a mail server would not take it either. */
export class ScriptFault extends Error {
  constructor(
    readonly at: Place,
    readonly problem: Said,
  ) {
    super();
  }
}

/** The script is right at a place, and asks for what rules have no counterpart of. */
export class NoCounterpart extends Error {
  constructor(
    readonly at: Place,
    readonly problem: Said,
  ) {
    super();
  }
}
