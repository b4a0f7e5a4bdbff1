import "../../../texts/en/index";
import type { RouterContextProvider } from "react-router";
import type { Messages } from "../../../texts/catalogue";
import { type AllOf, type Say, sayIn } from "../../../texts/say";
import { languageContext } from "./context.server";

/** What says the messages of these catalogues in the language of whoever asks. */
export function sayFor<const Catalogues extends readonly [Messages, ...Messages[]]>(
  context: Readonly<RouterContextProvider>,
  ..._catalogues: Catalogues
): Say<AllOf<Catalogues>> {
  return sayIn(context.get(languageContext).locale) as Say<AllOf<Catalogues>>;
}
