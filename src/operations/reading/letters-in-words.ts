import { firstWords } from "../../core/text/new-text";
import { sanitiseHtml, textOfHtml } from "../../mail/index";
import type { ListedLetter } from "../../storage/mail/index";

/** A letter that is to go, or went, with how it begins. */
export type LetterInList = Omit<ListedLetter, "html"> & { readonly text: string };

/** Letters as lists show them. */
export function lettersInWords(letters: readonly ListedLetter[]): LetterInList[] {
  return letters.map(({ html, ...letter }) => ({ ...letter, text: firstWords(textOfHtml(sanitiseHtml(html).html)) }));
}
