import { createContext, useContext } from "react";
import type { Messages } from "../../texts/catalogue";
import { type Say, sayIn } from "../../texts/say";

/** The locale in which the screens speak. */
export const LocaleContext = createContext("en");

type AllOf<Catalogues extends readonly Messages[]> = Catalogues extends readonly [
  infer First extends Messages,
  ...infer Rest extends readonly Messages[],
]
  ? First & AllOf<Rest>
  : object;

/** What says the messages of these catalogues in the language of whoever looks. */
export function useSay<const Catalogues extends readonly [Messages, ...Messages[]]>(
  ..._catalogues: Catalogues
): Say<AllOf<Catalogues>> {
  return sayIn(useContext(LocaleContext)) as Say<AllOf<Catalogues>>;
}
