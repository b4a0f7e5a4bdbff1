import { escapedText } from "../writing/html-of-text";
import { type Asked, BLANK_ATTRIBUTE, type Blank, FILLINGS, type Filling, isAsked } from "./blank";
import { fillingOf, type Known, type Using } from "./known";
import { placesIn } from "./places";

// As a subject names them: "About the [record-title]".
const IN_SUBJECT = new RegExp(`\\[(${FILLINGS.join("|")})\\]`, "gi");

const fillingNamed = (name: string) => FILLINGS.find((filling) => filling === name.toLowerCase()) as Filling;

/** What a subject names in brackets that is filled by itself, each once. */
export function fillingsIn(subject: string): Filling[] {
  return [...new Set([...subject.matchAll(IN_SUBJECT)].map(([, name = ""]) => fillingNamed(name)))];
}

/** A subject with what it names in brackets; what is not known stays as it stands. */
export function filledSubject(subject: string, known: Known, using: Using): string {
  return subject.replace(
    IN_SUBJECT,
    (whole, name: string) => fillingOf({ kind: fillingNamed(name) }, known, using) || whole,
  );
}

/**
 * The text of a template as a letter begins with it: with what is known in its blanks, so that only those are left that
 * somebody has to fill, what is not known among them. All else, passages too, stands as it stood.
 */
export function filledHtml(html: string, known: Known, using: Using): string {
  let [filled, at] = ["", 0];
  for (const { start, end, blank } of placesIn(html).blanks) {
    filled += html.slice(at, start) + (isAsked(blank) ? html.slice(start, end) : inPlaceOf(blank, known, using));
    at = end;
  }
  return filled + html.slice(at);
}

function inPlaceOf(blank: Exclude<Blank, { readonly kind: Asked }>, known: Known, using: Using): string {
  const filling = fillingOf(blank, known, using);
  return filling === "" ? `<span ${BLANK_ATTRIBUTE}="text">${escapedText(blank.label)}</span>` : escapedText(filling);
}
