import { givenArguments, onlyText } from "./arguments";
import type { ScriptTest, ScriptText } from "./read-script";
import { NoCounterpart, ScriptFault, said } from "./script-problem";

/** The values of variables by their names, in lower case; null for one that depends on the message. */
export type Variables = ReadonlyMap<string, string | null>;

const MODIFIERS: Readonly<Record<string, (value: string) => string>> = {
  // In the order of their precedence (RFC 5229 4.1), the highest first.
  lower: (value) => value.toLowerCase(),
  upper: (value) => value.toUpperCase(),
  lowerfirst: (value) => value.slice(0, 1).toLowerCase() + value.slice(1),
  upperfirst: (value) => value.slice(0, 1).toUpperCase() + value.slice(1),
  quotewildcard: (value) => value.replace(/[*?\\]/g, "\\$&"),
  length: (value) => String([...value].length),
};

// A text with its variables replaced (RFC 5229 section 3): null where one depends on the message, as what a comparison with
// wildcards or a pattern found does. What is not set is empty.
function expanded(text: string, variables: Variables): string | null {
  let depends = false;
  const replaced = text.replace(/\$\{([a-z_][a-z0-9_]*|\d+)\}/gi, (_whole, name: string) => {
    const known = variables.get(name.toLowerCase());
    const value = /^\d/.test(name) ? null : known === undefined ? "" : known;
    if (value === null) depends = true;
    return value ?? "";
  });
  return depends ? null : replaced;
}

/** The variables after a `set`. Throws `ScriptFault` where it is none. */
export function withSet(command: ScriptTest, variables: Variables): Variables {
  const tags = Object.fromEntries(Object.keys(MODIFIERS).map((name) => [name, "flag" as const]));
  const given = givenArguments(command, { tags, positional: ["text", "text"] });
  const [name, written] = [onlyText(given.texts(0)), onlyText(given.texts(1))];
  if (name === null || written === null)
    throw new ScriptFault(command.at, said("sieve.lacksAnArgument", { name: "set" }));
  if (!/^[a-z_][a-z0-9_]*$/i.test(name.text))
    throw new ScriptFault(name.at, said("sieve.isNoVariable", { name: name.text }));
  let value = expanded(written.text, variables);
  for (const [modifier, change] of Object.entries(MODIFIERS))
    if (value !== null && given.has(modifier)) value = change(value);
  return new Map([...variables, [name.text.toLowerCase(), value]]);
}

/** The text of a place in a script. Throws `NoCounterpart` where it depends on the message. */
export function textWith(written: ScriptText, variables: Variables): string {
  const text = expanded(written.text, variables);
  if (text === null) throw new NoCounterpart(written.at, said("sieve.dependsOnTheMessage", { text: written.text }));
  return text;
}

/** A text in which letters are written by their numbers (RFC 5228 2.4.2.4); what is no number of letters stays as it is. */
export function decodedCharacters(text: string): string {
  return text
    .replace(/\$\{hex:((?:\s*[0-9a-f]{1,2})+\s*)\}/gi, (_whole, numbers: string) =>
      new TextDecoder().decode(Uint8Array.from(numbersIn(numbers))),
    )
    .replace(/\$\{unicode:((?:\s*[0-9a-f]{1,6})+\s*)\}/gi, (whole, numbers: string) => {
      const points = numbersIn(numbers);
      const areLetters = points.every((point) => point <= 0x10ffff && !(point >= 0xd800 && point <= 0xdfff));
      return areLetters ? String.fromCodePoint(...points) : whole;
    });
}

const numbersIn = (text: string) =>
  text
    .trim()
    .split(/\s+/)
    .map((number) => Number.parseInt(number, 16));
