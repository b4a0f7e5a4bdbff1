import { type PlainKey, sayIn } from "../../../texts/say";

/** Says a message in the language of the page that is open: for a browser outside of what it draws. */
export function sayHere<Catalogue extends object>(_catalogue: Catalogue, key: PlainKey<Catalogue>): string {
  return sayIn(document.documentElement.lang)({ key, values: {} });
}
