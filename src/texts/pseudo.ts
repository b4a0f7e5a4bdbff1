import type { MessageFormatElement } from "@formatjs/icu-messageformat-parser";
import type { Message } from "./catalogue";

const PLAIN = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
const ACCENTED = "áƀçđéƒĝħíĵķļɱñóþǫŕšţúṽŵẋýžÅƁÇĐÉƑĜĦÍĴĶĻṀÑÓÞǪŔŠŢÚṼŴẊÝŽ";
const ACCENT_OF = new Map([...PLAIN].map((letter, at) => [letter, [...ACCENTED][at] ?? letter]));
// Between the names of values.
const WORDS = /(\{\w+\})|[^{]+/g;
const VOWEL = /[aeiouAEIOU]/g;

/** A text that can be read and is nobody's language: every letter has an accent, every vowel is there twice. */
function accented(text: string): string {
  return text.replace(VOWEL, "$&$&").replace(/[a-zA-Z]/g, (letter) => ACCENT_OF.get(letter) ?? letter);
}

/** A message in that language: what it says is accented, what it is given is not. */
export function accentedMessage(message: Message): Message {
  return typeof message === "string"
    ? message.replace(WORDS, (text, value: string | undefined) => (value === undefined ? accented(text) : text))
    : message.map(accentedElement);
}

// By name of the field: the numbers of the kinds are the parser's, which a browser does not have.
function accentedElement(element: MessageFormatElement): MessageFormatElement {
  if ("options" in element)
    return {
      ...element,
      options: Object.fromEntries(
        Object.entries(element.options).map(([name, { value }]) => [name, { value: value.map(accentedElement) }]),
      ),
    } as MessageFormatElement;
  if ("children" in element) return { ...element, children: element.children.map(accentedElement) };
  return (element.type as number) === LITERAL && "value" in element
    ? ({ ...element, value: accented(element.value) } as MessageFormatElement)
    : element;
}

const LITERAL = 0;
