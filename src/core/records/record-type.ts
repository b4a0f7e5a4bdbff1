import { commonTexts } from "../../texts/en/common";
import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import type { RecordTypeId } from "../kernel/ids";
import { lettersOf, readCodePattern } from "./code-pattern";
import { type FilingField, fieldProblems } from "./filing-field";

const said = saidOf(recordsTexts, commonTexts);

/** A type of records, such as clients or projects. */
export type RecordType = {
  readonly id: RecordTypeId;
  readonly name: string;
  /** See `readCodePattern`. */
  readonly codePattern: string;
  readonly fields: readonly FilingField[];
};

/** What is wrong with a type, by what it is about. */
export type TypeProblems = Partial<Readonly<Record<"name" | "codePattern" | "fields", Said>>>;

const MAX_NAME = 60;

/** What is wrong with a type beside the others; nothing when it is right. */
export function typeProblems(type: RecordType, others: readonly RecordType[]): TypeProblems {
  const name = type.name.trim();
  const beside = others.filter(({ id }) => id !== type.id);
  const inName =
    name === ""
      ? said("records.giveItAName")
      : name.length > MAX_NAME
        ? said("common.atMostCharacters", { most: MAX_NAME })
        : beside.some((other) => other.name.toLowerCase() === name.toLowerCase())
          ? said("records.thereIsATypeAlready", { name })
          : null;
  const inPattern = patternProblem(type.codePattern, beside);
  const [inFields] = fieldProblems(type.fields);
  return {
    ...(inName === null ? {} : { name: inName }),
    ...(inPattern === null ? {} : { codePattern: inPattern }),
    ...(inFields === undefined ? {} : { fields: inFields }),
  };
}

// Codes of two types must never meet, whatever dates and numbers they come to.
function patternProblem(text: string, others: readonly RecordType[]): Said | null {
  const read = readCodePattern(text);
  if (!read.ok) return read.error;
  const letters = lettersOf(read.value);
  const same = others.find((other) => {
    const theirs = readCodePattern(other.codePattern);
    return theirs.ok && lettersOf(theirs.value) === letters;
  });
  return same === undefined ? null : said("records.theCodesOfBeginWith", { name: same.name, letters });
}
