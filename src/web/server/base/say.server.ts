import { AsyncLocalStorage } from "node:async_hooks";
import type { ValidationError, ValidationErrorItem } from "joi";
import type { AskedFields } from "../../../core/records/filing-field";
import { type English, isKey } from "../../../texts/en/index";
import type { Said, Sayable, Wording } from "../../../texts/said";
import { loadLanguages, type Say, sayIn } from "../../../texts/say";

await loadLanguages();

const asked = new AsyncLocalStorage<string>();

/** Answers a request in the language of whoever asks: what is said on the way to the answer is said in it. */
export function speaking<Answer>(locale: string, answer: () => Answer): Answer {
  return asked.run(locale, answer);
}

/** Says a message in the language of whoever asks; in English where nobody does. */
export const speak = ((key: string, values: object) =>
  (sayIn(asked.getStore() ?? "en") as (key: string, values: object) => string)(key, values)) as Say<English>;

/** What is wrong with a field: the key that its schema has for it, with what the schema knows of it. */
export function problemInWords({ message, context }: ValidationErrorItem): string {
  return isKey(message)
    ? (speak as (key: string, values: object) => string)(message, { limit: "", ...context })
    : message;
}

/** The first of what is wrong with what was posted. */
export function problemOf({ details: [first], message }: ValidationError): string {
  return first === undefined ? message : problemInWords(first);
}

/** What is wrong with what was posted, by field. */
export function problemsByField({ details }: ValidationError): Record<string, string> {
  return Object.fromEntries(details.map((detail) => [String(detail.path[0]), problemInWords(detail)]));
}

/** What may be a name as it is, or has to be said. */
export function worded(what: Sayable): string {
  return typeof what === "object" ? speak(what) : String(what);
}

/** What is wrong with each of some fields, said. */
export function saidByField<Field extends string>(
  problems: Readonly<Partial<Record<Field, Wording | undefined>>>,
): { [F in Field]?: string } {
  const said = Object.entries<Wording | undefined>(problems).flatMap(([field, problem]) =>
    problem === undefined ? [] : [[field, speak(problem)] as const],
  );
  return Object.fromEntries(said) as { [F in Field]?: string };
}

/** What a record asks for of what is filed on it, as the sheet that asks for it has it. */
export function askedView(asked: AskedFields<Said>): AskedFields {
  return { ...asked, problems: saidByField(asked.problems) };
}
