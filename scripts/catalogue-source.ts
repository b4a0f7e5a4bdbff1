import { parse } from "@formatjs/icu-messageformat-parser";
import ts from "typescript";
import { needsParser } from "../src/texts/needs-parser.ts";

/** A message of a catalogue, and where in its source it stands. */
export type PlacedMessage = { readonly key: string; readonly message: string; readonly line: number };

type Placed = PlacedMessage & { readonly start: number; readonly end: number };

/** The messages of a catalogue's source, as they stand in it. */
export function messagesIn(code: string, file: string): Placed[] {
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

/** What stands for a message in built code: the text, or what the parser makes of it; that which is broken is named. */
export function parsedMessage({ key, message, line }: PlacedMessage, file: string): string {
  if (!needsParser(message)) return JSON.stringify(message);
  try {
    return JSON.stringify(parse(message));
  } catch (problem) {
    throw new Error(`${file}:${line}: the message ${key} is broken: ${(problem as Error).message}`);
  }
}

/** The source of a catalogue with its messages parsed. */
export function withParsedMessages(code: string, file: string): string {
  let parsed = code;
  for (const message of messagesIn(code, file).toReversed())
    parsed = `${parsed.slice(0, message.start)}${parsedMessage(message, file)}${parsed.slice(message.end)}`;
  return parsed;
}
