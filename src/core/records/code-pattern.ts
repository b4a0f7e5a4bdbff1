import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import { err, ok, type Result } from "../kernel/result";
import { recordCodesIn } from "../threading/record-codes";

const said = saidOf(recordsTexts);

type Part =
  | { readonly kind: "text"; readonly text: string }
  | { readonly kind: "year"; readonly digits: 2 | 4 }
  | { readonly kind: "month" }
  | { readonly kind: "number"; readonly digits: number };

/** How the reference codes of a type of records are made: text, parts of a date, and one running number. */
export type CodePattern = readonly Part[];

/** A pattern with its date filled in; its records are numbered from 1 without gaps. `#` stands for the number. */
export type CodeSeries = string;

const PIECE = /\{(yyyy|yy|mm|n{1,6})\}|[^{}]+|[{}]/g;
const NUMBER_PLACE = "#";
// Any date and number show whether what a pattern makes is taken for a code where it stands in a letter.
const SOME_DAY = "2026-11-24";

/**
 * Reads a pattern such as `P-{yy}-{nnn}`: `{yy}`, `{yyyy}` and `{mm}` stand for the date on which a record is opened,
 * `{n}` to `{nnnnnn}` for the number, with at least as many digits. Refuses, in a sentence, a pattern that would give a
 * code twice (no number) or codes that could not be found again in the text of a letter (`recordCodesIn`).
 */
export function readCodePattern(text: string): Result<CodePattern, Said> {
  const parts: Part[] = [];
  for (const [piece, token] of text.trim().matchAll(PIECE)) {
    if (token === undefined && /[{}]/.test(piece)) return err(said("records.writeThePartsThatChange"));
    parts.push(token === undefined ? { kind: "text", text: piece } : partOf(token));
  }
  const numbers = parts.filter(({ kind }) => kind === "number").length;
  if (numbers === 0) return err(said("records.everyRecordWouldGetThe"));
  if (numbers > 1) return err(said("records.oneRunningNumberIsEnough"));
  const example = codeOf(parts, SOME_DAY, 1);
  if (recordCodesIn(example)[0] !== example) return err(said("records.beginWithOneToFour"));
  return ok(parts);
}

function partOf(token: string): Part {
  if (token === "yyyy") return { kind: "year", digits: 4 };
  if (token === "yy") return { kind: "year", digits: 2 };
  return token === "mm" ? { kind: "month" } : { kind: "number", digits: token.length };
}

/** The series of a pattern on a day (`YYYY-MM-DD`): `P-26-#` for `P-{yy}-{nnn}` in 2026. */
export function seriesOn(pattern: CodePattern, day: string): CodeSeries {
  return filledIn(pattern, day, () => NUMBER_PLACE);
}

/** The code of the record with this number, from 1 on, opened on this day (`YYYY-MM-DD`). */
export function codeOf(pattern: CodePattern, day: string, number: number): string {
  return filledIn(pattern, day, (digits) => String(number).padStart(digits, "0"));
}

function filledIn(pattern: CodePattern, day: string, number: (digits: number) => string): string {
  const [year = "", month = ""] = day.split("-");
  const words = (part: Part): string => {
    if (part.kind === "text") return part.text;
    if (part.kind === "year") return year.slice(-part.digits);
    return part.kind === "month" ? month : number(part.digits);
  };
  return pattern.map(words).join("");
}

/** The number that a code has in a series; null when it is none of the series. */
export function numberIn(series: CodeSeries, code: string): number | null {
  const [before = "", after = ""] = series.split(NUMBER_PLACE);
  if (!code.startsWith(before) || !code.endsWith(after)) return null;
  const digits = code.slice(before.length, code.length - after.length);
  return /^\d{1,9}$/.test(digits) ? Number(digits) : null;
}

/** The letters that the codes of a pattern begin with: two types with the same ones could give the same code. */
export function lettersOf(pattern: CodePattern): string {
  const [first] = pattern;
  return first?.kind === "text" ? (/^[A-Z]+/.exec(first.text)?.[0] ?? "") : "";
}
