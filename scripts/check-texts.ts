import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { parse, TYPE } from "@formatjs/icu-messageformat-parser";
import ts from "typescript";
import { messagesIn, type PlacedMessage } from "./catalogue-source";

// What people read stands in the catalogues of src/texts and is said by its key: no sentence in the screens, no key that
// nobody says, no message that cannot be said. (A key that no catalogue has, and a value that is missing, are type errors.)
// Another language has a message for each of them, with the same values.

const root = process.argv[2] ?? process.cwd();
const CATALOGUES = join(root, "src/texts/en");
const TRANSLATIONS = join(root, "src/texts/translations");
/** Where people read what the sources say. */
const READ_FROM = ["src/web", "src/core", "src/operations"];
/** What is no text of ours: marks by which others' mail is known, letters in languages of their own, answers to operators. */
const NOT_OURS =
  /^src\/(?:core\/(?:message|text)\/(?!sender-trust)|core\/waiting\/reminder-text|core\/templates\/greeting|operations\/(?:arriving\/inspect|rules\/written-rules))/;

const problems: string[] = [];
const tell = (file: string, line: number, problem: string) =>
  problems.push(`${relative(root, file)}:${line}: ${problem}`);

function filesIn(directory: string): string[] {
  return readdirSync(directory, { withFileTypes: true }).flatMap((entry) => {
    const path = join(directory, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return /\.tsx?$/.test(entry.name) && !/\.test\./.test(entry.name) ? [path] : [];
  });
}

const sources = filesIn(join(root, "src")).filter((file) => ![CATALOGUES, TRANSLATIONS].includes(dirname(file)));
const named = new Set(
  sources.flatMap((file) => [...readFileSync(file, "utf8").matchAll(/"(\w+\.\w+)"/g)].map(([, key]) => key)),
);

type Elements = ReturnType<typeof parse>;

function namesIn(elements: Elements): string[] {
  return elements.flatMap((element) => [
    ...("value" in element && element.type !== TYPE.literal ? [element.value] : []),
    ...("options" in element ? Object.values(element.options).flatMap(({ value }) => namesIn(value)) : []),
    ...("children" in element ? namesIn(element.children) : []),
  ]);
}

/** The names of the values that a message needs; says what is wrong with one that is broken. */
function valuesIn({ key, message, line }: PlacedMessage, file: string): string {
  try {
    return [...new Set(namesIn(parse(message)))].toSorted().join(", ");
  } catch (problem) {
    tell(file, line, `the message ${key} is broken: ${(problem as Error).message}`);
    return "";
  }
}

const placeOf = new Map<string, string>();
const valuesOf = new Map<string, string>();
const onServers = readFileSync(join(CATALOGUES, "index.ts"), "utf8");
for (const file of filesIn(CATALOGUES)) {
  const name = file.match(/([\w-]+)\.ts$/)?.[1] ?? "";
  if (name !== "index" && !onServers.includes(`from "./${name}"`)) tell(file, 1, "servers do not know this catalogue");
  const room = name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  for (const message of messagesIn(readFileSync(file, "utf8"), file)) {
    const { key, line } = message;
    if (!key.startsWith(`${room}.`)) tell(file, line, `the key ${key} does not begin with its room`);
    if (placeOf.has(key)) tell(file, line, `the key ${key} is there twice`);
    placeOf.set(key, file);
    if (!named.has(key)) tell(file, line, `nothing says the message ${key}`);
    valuesOf.set(key, valuesIn(message, file));
  }
}

for (const file of existsSync(TRANSLATIONS) ? filesIn(TRANSLATIONS) : []) {
  const translated = new Map<string, PlacedMessage>();
  for (const message of messagesIn(readFileSync(file, "utf8"), file)) translated.set(message.key, message);
  for (const [key, values] of valuesOf) {
    const message = translated.get(key);
    if (message === undefined) tell(file, 1, `the message ${key} is not translated`);
    else if (valuesIn(message, file) !== values)
      tell(file, message.line, `the message ${key} needs ${values || "no values"}`);
  }
}

// Attributes whose text is read, or read out.
const READ = new Set([
  "label",
  "title",
  "placeholder",
  "alt",
  "about",
  "hint",
  "description",
  "words",
  "name",
  "problem",
]);
// Of these no word is for programs.
const ONLY_READ = new Set(["label", "title", "placeholder", "alt", "about", "hint", "description", "words"]);
const isRead = (attribute: string) => attribute.startsWith("aria-label") || attribute === "aria-description";
const WORD = /\p{L}{2}/u;
// Several words that begin as a sentence does; neither a list of classes nor a query.
const SENTENCE = /^\p{Lu}[\p{L}’]*(?:[ ,:…]|$).*|[\p{L}’]+ [\p{L}’]+ [\p{L}’]+/u;

function isSentence(text: string): boolean {
  return SENTENCE.test(text) && / \p{Ll}/u.test(text) && !/[[\]=]|\b(?:flex|grid|px|text|bg|border)-|:\w/.test(text);
}

/** What a literal is in: an attribute by its name, or null. */
function attributeOf(node: ts.Node): string | null {
  for (let at = node.parent; at !== undefined; at = at.parent) {
    if (ts.isJsxAttribute(at)) return at.name.getText();
    if (ts.isFunctionLike(at) || ts.isJsxElement(at) || ts.isStatement(at)) return null;
  }
  return null;
}

/** What a literal says; a value in it stands as a sign. */
function textOf(node: ts.Node): string | null {
  if (ts.isTemplateExpression(node))
    return [node.head, ...node.templateSpans.map(({ literal }) => literal)].map(({ text }) => text).join("…");
  return ts.isStringLiteralLike(node) ? node.text : null;
}

/** Whether a literal is what an element or an attribute shows, as it is or as one of several cases. */
function isShown(node: ts.Node): boolean {
  let from = node;
  for (let at = node.parent; at !== undefined; from = at, at = at.parent) {
    if (ts.isJsxAttribute(at)) return true;
    if (ts.isJsxExpression(at)) return !ts.isJsxSpreadAttribute(at.parent);
    const isOneCase = ts.isConditionalExpression(at)
      ? from !== at.condition
      : ts.isBinaryExpression(at) && isChoice(at);
    if (!isOneCase && !ts.isParenthesizedExpression(at)) return false;
  }
  return false;
}

const CHOICES = [ts.SyntaxKind.QuestionQuestionToken, ts.SyntaxKind.BarBarToken, ts.SyntaxKind.AmpersandAmpersandToken];
const isChoice = ({ operatorToken }: ts.BinaryExpression) => CHOICES.includes(operatorToken.kind);

/** Whether a literal names one of the choices of a menu: the second of a pair. */
const isOfChoice = (node: ts.Node, attribute: string) =>
  attribute === "choices" && ts.isArrayLiteralExpression(node.parent) && node.parent.elements[1] === node;

function isForReaders(node: ts.Node, text: string): boolean {
  if (!WORD.test(text) || placeOf.has(text) || isThrown(node)) return false;
  const attribute = attributeOf(node);
  if (attribute === null) return isSentence(text) || isShown(node);
  if ((ONLY_READ.has(attribute) || attribute === "aria-label") && isShown(node)) return true;
  if (isOfChoice(node, attribute)) return true;
  return (isRead(attribute) || READ.has(attribute)) && /^\p{Lu}| /u.test(text);
}

function lookAt(file: string): void {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const visit = (node: ts.Node): void => {
    const text = ts.isJsxText(node) ? node.text.trim() : textOf(node);
    if (text !== null && (ts.isJsxText(node) ? WORD.test(text) : isForReaders(node, text)))
      tell(
        file,
        source.getLineAndCharacterOfPosition(node.getStart()).line + 1,
        `a text that stands in no catalogue: ${text.replace(/\s+/g, " ")}`,
      );
    ts.forEachChild(node, visit);
  };
  visit(source);
}

// An error that is thrown is for whoever runs the server, or for the next statement.
function isThrown(node: ts.Node): boolean {
  for (let at = node.parent; at !== undefined && !ts.isFunctionLike(at); at = at.parent) {
    if (ts.isThrowStatement(at)) return at.expression !== undefined && ts.isNewExpression(at.expression);
    if (ts.isImportDeclaration(at)) return true;
  }
  return false;
}

for (const directory of READ_FROM)
  for (const file of filesIn(join(root, directory))) if (!NOT_OURS.test(relative(root, file))) lookAt(file);

console.log(problems.length === 0 ? `${placeOf.size} messages, all said` : problems.join("\n"));
if (problems.length > 0) process.exitCode = 1;
