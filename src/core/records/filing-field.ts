import { commonTexts } from "../../texts/en/common";
import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import { err, ok, type Result } from "../kernel/result";
import { dayAtHour } from "../time/calendar-day";

const said = saidOf(recordsTexts, commonTexts);

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

/** What is given in particulars, without what was left empty. */
export function givenIn(fields: FieldValues = {}): string[] {
  return Object.values(fields).filter((value) => value !== "");
}

const MAX_TEXT = 500;
const MAX_FIELDS = 20;
const MAX_LABEL = 60;

/**
 * A value as it is kept: text without edges, `YYYY-MM-DD`, a decimal number with a point, `yes` or `no`, one of the
 * choices; the empty text where nothing was given. A refusal is a sentence for beside the field.
 */
function readFieldValue(field: FilingField, typed: string): Result<string, Said> {
  const text = typed.trim();
  if (text === "") return field.required ? err(said("records.isNeededHere", { label: field.label })) : ok("");
  if (text.length > MAX_TEXT) return err(said("common.atMostCharacters", { most: MAX_TEXT }));
  switch (field.kind) {
    case "text":
    case "person":
      return ok(text);
    case "choice":
      return field.choices.includes(text) ? ok(text) : err(said("records.isNoneOfTheChoices", { text }));
    case "date":
      return dayAtHour(text, 0, "UTC") !== null ? ok(text) : err(said("records.writeADayAs2026"));
    case "number": {
      const number = text.replace(",", ".");
      return /^-?\d{1,15}(\.\d{1,6})?$/.test(number) ? ok(number) : err(said("records.writeANumberSuchAs"));
    }
    case "yes-no":
      return text === "yes" || text === "no" ? ok(text) : err(said("records.chooseYesOrNo"));
    default:
      return assertNever(field.kind);
  }
}

/** All the particulars that some fields ask for, or what is wrong with which, by the key of the field. */
export function readFieldValues(
  fields: readonly FilingField[],
  typed: FieldValues,
): Result<FieldValues, Readonly<Record<string, Said>>> {
  const values: Record<string, string> = {};
  const problems: Record<string, Said> = {};
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
export type AskedFields<Problem = string> = {
  readonly code: string;
  readonly title: string;
  readonly fields: readonly (FilingField & { readonly value: string })[];
  readonly problems: Readonly<Partial<Record<string, Problem>>>;
};

/** What is wrong with the fields of a type, a sentence for each, none when they are right. */
export function fieldProblems(fields: readonly FilingField[]): Said[] {
  const problems = fields.length > MAX_FIELDS ? [said("records.atMostFields", { most: MAX_FIELDS })] : [];
  const labels = fields.map(({ label }) => label.trim().toLowerCase());
  for (const [at, field] of fields.entries()) {
    const name = field.label.trim();
    if (name === "") problems.push(said("records.fieldNeedsAName", { at: at + 1 }));
    else if (name.length > MAX_LABEL) problems.push(said("records.isTooLongForThe", { name: name.slice(0, 20) }));
    else if (labels.indexOf(name.toLowerCase()) < at) problems.push(said("records.twoFieldsAreCalled", { name }));
    else problems.push(...ownProblems(field));
  }
  return problems;
}

function ownProblems(field: FilingField): Said[] {
  if (field.kind === "choice" && field.choices.length === 0)
    return [said("records.needsSomethingToChooseFrom", { label: field.label })];
  const start = field.start === "" ? ok("") : readFieldValue(field, field.start);
  return start.ok
    ? []
    : [said("records.cannotBeginWith", { label: field.label, start: field.start, error: start.error })];
}
