import { createContext, useContext } from "react";
import type { Messages } from "../../../texts/catalogue";
import type { AllOf } from "../../../texts/said";
import { type Say, sayIn } from "../../../texts/say";

/** The locale in which the screens speak. */
export const LocaleContext = createContext("en");

/** What says the messages of these catalogues in the language of whoever looks. */
export function useSay<const Catalogues extends readonly Messages[]>(
  ..._catalogues: Catalogues
): Say<AllOf<Catalogues>> {
  return sayIn(useContext(LocaleContext)) as Say<AllOf<Catalogues>>;
}

/** What can be chosen, with the text of each said. */
export function saidChoices<Value extends string, Key extends string>(
  say: (key: Key) => string,
  choices: readonly (readonly [value: Value, key: Key])[],
): readonly (readonly [Value, string])[] {
  return choices.map(([value, key]) => [value, say(key)]);
}
