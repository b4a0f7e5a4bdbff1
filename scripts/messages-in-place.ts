import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parse } from "@formatjs/icu-messageformat-parser";
import { messagesIn, type PlacedMessage, parsedMessage } from "./catalogue-source.ts";

/** What stands for each key in what goes to browsers, as source; English messages are told apart where a language does so. */
export type InPlace = ReadonlyMap<string, string>;

/** What stands in the place of the keys of all English catalogues of a folder of texts. */
export function inPlaceOf(folder: string): InPlace {
  const english = sourcesIn(join(folder, "en")).flatMap(({ code, file }) =>
    messagesIn(code, file).map((message) => [message, parsedMessage(message, file)] as const),
  );
  const languages = sourcesIn(join(folder, "translations")).map(
    ({ code, file }) => new Map(messagesIn(code, file).map(({ key, message }) => [key, message])),
  );
  const alike = new Map<string, (typeof english)[number][]>();
  for (const one of english) alike.set(one[1], [...(alike.get(one[1]) ?? []), one]);
  return new Map(
    [...alike.values()].flatMap((group) => {
      const keys = group.map(([{ key }]) => key);
      const isToldApart = languages.some((language) => new Set(keys.map((key) => language.get(key))).size > 1);
      return group.map(([message, source], at) => [message.key, isToldApart ? marked(message, at) : source] as const);
    }),
  );
}

// A text of nothing behind a message changes nothing that is read, but makes it another.
function marked({ message }: PlacedMessage, at: number): string {
  const nothing = Array.from({ length: at }, () => ({ type: 0, value: "" }));
  return JSON.stringify([...parse(message), ...nothing]);
}

/** The source of a translation for browsers: by what stands in place of its keys. */
export function translationInPlace(code: string, file: string, inPlace: InPlace): string {
  const entries = messagesIn(code, file).flatMap((message) => {
    const english = inPlace.get(message.key);
    return english === undefined ? [] : [`[${nameOf(english)},${parsedMessage(message, file)}]`];
  });
  return `export default new Map([${entries.join(",")}]);`;
}

// As a browser names a message that stands in place: a text is its own name, what is parsed is named by its JSON.
const nameOf = (source: string) => (source.startsWith('"') ? source : JSON.stringify(source));

function sourcesIn(folder: string): { code: string; file: string }[] {
  if (!existsSync(folder)) return [];
  const files = readdirSync(folder).filter((name) => name.endsWith(".ts"));
  return files.toSorted().map((name) => ({ file: join(folder, name), code: readFileSync(join(folder, name), "utf8") }));
}
