import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import type { PolicyId } from "../kernel/ids";
import { err, ok, type Result } from "../kernel/result";
import { periodInWords, readPeriod } from "./period";

const said = saidOf(recordsTexts);

/** From when on something is kept so long: the closing of its record, or the newest message. */
export const COUNTS_FROM = ["closing", "last-message"] as const;
export type CountsFrom = (typeof COUNTS_FROM)[number];
/** What comes at the end: somebody looks at it, or it goes a week after it was announced. */
export const ENDS_IN = ["review", "disposal"] as const;
export type EndsIn = (typeof ENDS_IN)[number];

/** How long what it is given to is kept. */
export type RetentionPolicy = {
  readonly id: PolicyId;
  readonly name: string;
  /** A duration of ISO 8601 that `readPeriod` takes. */
  readonly period: string;
  readonly countsFrom: CountsFrom;
  readonly endsIn: EndsIn;
};

const MAX_NAME = 60;

/** A policy as it is kept, or what is wrong with its fields, each in a sentence. */
export function checkedPolicy(
  given: RetentionPolicy,
): Result<RetentionPolicy, Readonly<Partial<Record<"name" | "period", Said>>>> {
  const name = given.name.trim();
  const period = readPeriod(given.period);
  const problems = {
    ...(name === "" || name.length > MAX_NAME ? { name: said("records.giveItANameOf", { most: MAX_NAME }) } : {}),
    ...(period.ok ? {} : { period: period.error }),
  };
  if (Object.keys(problems).length > 0) return err(problems);
  return ok({ ...given, name, period: given.period.trim().toUpperCase() });
}

/** A policy in words: "10 years after its closing". */
export function policyInWords({ period, countsFrom }: Pick<RetentionPolicy, "period" | "countsFrom">): Said {
  const read = readPeriod(period);
  const words = { period: read.ok ? periodInWords(read.value) : period };
  return countsFrom === "closing" ? said("records.afterClosing", words) : said("records.afterNewestMessage", words);
}
