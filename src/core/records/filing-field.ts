import { assertNever } from "../kernel/assert-never";
import { err, ok, type Result } from "../kernel/result";
import { dayAtHour } from "../time/calendar-day";

/** What kinds of particulars can be asked for when something is filed. */
export const FIELD_KINDS = ["text", "choice", "date", "person", "number", "yes-no"] as const;
type FieldKind = (typeof FIELD_KINDS)[number];

/** One particular that records of a type want to know of what is filed on them. */
export type FilingField = {
  /** Stays the same whatever it is called. */
  readonly key: string;
  readonly label: string;
  readonly kind: FieldKind;
  readonly required: boolean;
  /** What can be chosen; empty but for a choice. */
  readonly choices: readonly string[];
  /** What it begins with; empty for nothing. */
  readonly start: string;
  /** Whether it begins with what the same member gave last, before `start`. */
  readonly remembers: boolean;
};

/** The particulars of one filing, by the key of their field, as `readFieldValue` gives them. */
export type FieldValues = Readonly<Record<string, string>>;

const MAX_TEXT = 500;
const MAX_FIELDS = 20;
const MAX_LABEL = 60;

/**
 * A value as it is kept: text without edges, `YYYY-MM-DD`, a decimal number with a point, `yes` or `no`, one of the
 * choices; the empty text where nothing was given. A refusal is a sentence for beside the field.
 */
function readFieldValue(field: FilingField, typed: string): Result<string, string> {
  const text = typed.trim();
  if (text === "") return field.required ? err(`“${field.label}” is needed here.`) : ok("");
  if (text.length > MAX_TEXT) return err(`At most ${MAX_TEXT} characters.`);
  switch (field.kind) {
    case "text":
    case "person":
      return ok(text);
    case "choice":
      return field.choices.includes(text)
        ? ok(text)
        : err(`“${text}” is none of the choices any more; choose another.`);
    case "date":
      return dayAtHour(text, 0, "UTC") !== null ? ok(text) : err("Write a day as 2026-12-25.");
    case "number": {
      const number = text.replace(",", ".");
      return /^-?\d{1,15}(\.\d{1,6})?$/.test(number) ? ok(number) : err("Write a number, such as 12 or 12.5.");
    }
    case "yes-no":
      return text === "yes" || text === "no" ? ok(text) : err("Choose yes or no.");
    default:
      return assertNever(field.kind);
  }
}

/** All the particulars that some fields ask for, or what is wrong with which, by the key of the field. */
export function readFieldValues(
  fields: readonly FilingField[],
  typed: FieldValues,
): Result<FieldValues, Readonly<Record<string, string>>> {
  const values: Record<string, string> = {};
  const problems: Record<string, string> = {};
  for (const field of fields) {
    const read = readFieldValue(field, typed[field.key] ?? "");
    if (!read.ok) problems[field.key] = read.error;
    else if (read.value !== "") values[field.key] = read.value;
  }
  return Object.keys(problems).length > 0 ? err(problems) : ok(values);
}

/** What a field begins with: what she gave last where it is remembered and still right, else its start. */
export function beginningOf(field: FilingField, last: FieldValues): string {
  const remembered = field.remembers ? (last[field.key] ?? "") : "";
  const isRight = (text: string) => text !== "" && readFieldValue(field, text).ok;
  if (isRight(remembered)) return remembered;
  return isRight(field.start) ? field.start : "";
}

/** What a record asks for when something is filed on it, each field with what it begins with, and what was wrong with it. */
export type AskedFields = {
  readonly code: string;
  readonly title: string;
  readonly fields: readonly (FilingField & { readonly value: string })[];
  readonly problems: Readonly<Record<string, string>>;
};

/** What is wrong with the fields of a type, a sentence for each, none when they are right. */
export function fieldProblems(fields: readonly FilingField[]): string[] {
  const problems = fields.length > MAX_FIELDS ? [`At most ${MAX_FIELDS} fields.`] : [];
  const labels = fields.map(({ label }) => label.trim().toLowerCase());
  for (const [at, field] of fields.entries()) {
    const name = field.label.trim();
    if (name === "") problems.push(`Field ${at + 1} needs a name.`);
    else if (name.length > MAX_LABEL) problems.push(`“${name.slice(0, 20)}…” is too long for the name of a field.`);
    else if (labels.indexOf(name.toLowerCase()) < at) problems.push(`Two fields are called “${name}”.`);
    else problems.push(...ownProblems(field));
  }
  return problems;
}

function ownProblems(field: FilingField): string[] {
  if (field.kind === "choice" && field.choices.length === 0)
    return [`“${field.label}” needs something to choose from.`];
  const start = field.start === "" ? ok("") : readFieldValue(field, field.start);
  return start.ok ? [] : [`“${field.label}” cannot begin with “${field.start}”: ${start.error}`];
}
