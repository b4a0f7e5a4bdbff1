import { readFileSync } from "node:fs";
import { dirname, resolve } from "node:path";
import { parse } from "@formatjs/icu-messageformat-parser";
import ts from "typescript";
import type { Plugin } from "vite";
import { needsParser } from "../src/texts/needs-parser.ts";

const CATALOGUE = /\/src\/texts\/[\w-]+\/[\w-]+\.ts$/;

/**
 * Parses the messages of catalogues while building, so that nobody's browser has to, nor gets the parser; a message that
 * cannot be parsed ends the build, with its key and line. What goes to browsers has the messages in place of their keys: a
 * page brings those that it shows, and no others.
 */
export function texts(): Plugin {
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
    transform(code, id) {
      if (CATALOGUE.test(id)) return { code: withParsedMessages(code, id), map: null };
      const isOfBrowsers = this.environment.name === "client" && id.includes("/src/") && !id.includes("node_modules");
      return isOfBrowsers ? withMessagesInPlace(code, id) : null;
    },
  };
}

/** A message of a catalogue, and where in its source it stands. */
export type PlacedMessage = { readonly key: string; readonly message: string; readonly line: number };

type Placed = PlacedMessage & { readonly start: number; readonly end: number };

/** The messages of a catalogue's source, as they stand in it. */
export function messagesIn(code: string, file: string): readonly PlacedMessage[] {
  return placedMessages(code, file);
}

function placedMessages(code: string, file: string): Placed[] {
  const source = ts.createSourceFile(file, code, ts.ScriptTarget.Latest, true);
  const found: Placed[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isPropertyAssignment(node) && ts.isStringLiteral(node.name) && ts.isStringLiteralLike(node.initializer)) {
      const { initializer } = node;
      const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
      found.push({
        key: node.name.text,
        message: initializer.text,
        line,
        start: initializer.getStart(),
        end: initializer.getEnd(),
      });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** What stands for a message in built code: the text, or what the parser makes of it. */
function parsedMessage({ key, message, line }: PlacedMessage, file: string): string {
  if (!needsParser(message)) return JSON.stringify(message);
  try {
    return JSON.stringify(parse(message));
  } catch (problem) {
    throw new Error(`${file}:${line}: the message ${key} is broken: ${(problem as Error).message}`);
  }
}

function withParsedMessages(code: string, file: string): string {
  let parsed = code;
  for (const message of placedMessages(code, file).toReversed())
    parsed = `${parsed.slice(0, message.start)}${parsedMessage(message, file)}${parsed.slice(message.end)}`;
  return parsed;
}

const IMPORT = /^import (?:type )?\{ (\w+Texts) \} from "([^"]*\/texts\/en\/[\w-]+)";$/gm;
// As an attribute of an element it stands right behind the sign.
const KEY = /(=?)"(\w+\.\w+)"/g;

/** A source with the messages themselves in place of their keys, and without the catalogues. */
function withMessagesInPlace(code: string, file: string): { code: string; map: null } | null {
  const messages = new Map<string, string>();
  const replaced = code.replace(IMPORT, (_, name: string, path: string) => {
    const from = resolve(dirname(file), `${path}.ts`);
    for (const placed of messagesIn(readFileSync(from, "utf8"), from))
      messages.set(placed.key, parsedMessage(placed, from));
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
