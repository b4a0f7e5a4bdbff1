import { readFileSync } from "node:fs";
import { dirname, resolve } from "node:path";
import type { Plugin } from "vite";
import { messagesIn, withParsedMessages } from "./catalogue-source.ts";
import { type InPlace, inPlaceOf, translationInPlace } from "./messages-in-place.ts";

const CATALOGUE = /\/src\/texts\/[\w-]+\/[\w-]+\.ts$/;
const TRANSLATION = /(.*\/src\/texts)\/translations\/[\w-]+\.ts$/;

/**
 * Parses the messages of catalogues while building, so that nobody's browser has to, nor gets the parser; a message that
 * cannot be parsed ends the build, with its key and line. What goes to browsers has the messages in place of their keys: a
 * page brings those that it shows, and no others. Another language is one file for them, by what English says.
 */
export function texts(): Plugin {
  const folders = new Map<string, InPlace>();
  const inPlace = (folder: string) => {
    const known = folders.get(folder) ?? inPlaceOf(folder);
    folders.set(folder, known);
    return known;
  };
  return {
    name: "texts",
    enforce: "pre",
    config: () => ({
      resolve: {
        alias: [
          {
            find: /^@formatjs\/icu-messageformat-parser$/,
            replacement: "@formatjs/icu-messageformat-parser/no-parser.js",
          },
        ],
      },
    }),
    // A catalogue may have been changed since.
    watchChange: () => folders.clear(),
    transform(code, id) {
      const isOfBrowsers = this.environment.name === "client" && id.includes("/src/") && !id.includes("node_modules");
      const [, folder] = isOfBrowsers ? (TRANSLATION.exec(id) ?? []) : [];
      if (folder !== undefined) return { code: translationInPlace(code, id, inPlace(folder)), map: null };
      if (CATALOGUE.test(id)) return { code: withParsedMessages(code, id), map: null };
      return isOfBrowsers ? withMessagesInPlace(code, id, inPlace) : null;
    },
  };
}

const IMPORT = /^import (?:type )?\{ (\w+Texts) \} from "([^"]*\/texts\/en\/[\w-]+)";$/gm;
// As an attribute of an element it stands right behind the sign.
const KEY = /(=?)"(\w+\.\w+)"/g;

/** A source with the messages themselves in place of their keys, and without the catalogues. */
function withMessagesInPlace(
  code: string,
  file: string,
  inPlace: (folder: string) => InPlace,
): { code: string; map: null } | null {
  const messages = new Map<string, string>();
  const replaced = code.replace(IMPORT, (_, name: string, path: string) => {
    const from = resolve(dirname(file), `${path}.ts`);
    const all = inPlace(resolve(from, "../.."));
    for (const { key } of messagesIn(readFileSync(from, "utf8"), from)) messages.set(key, all.get(key) ?? "");
    return `const ${name} = {};`;
  });
  if (messages.size === 0) return null;
  const said = replaced.replace(KEY, (literal, sign: string, key: string) => {
    const message = messages.get(key);
    if (message === undefined) return literal;
    return sign === "" ? message : `={${message}}`;
  });
  return { code: said, map: null };
}
