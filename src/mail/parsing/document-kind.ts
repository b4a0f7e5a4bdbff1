import type { NamedFile } from "../../core/kernel/named-file";

/** The kinds of files whose text can be read. */
export type DocumentKind = "pdf" | "word" | "html" | "plain";

const WORD = /^application\/vnd\.openxmlformats-officedocument\.wordprocessingml\.document$/;

const KINDS: readonly (readonly [kind: DocumentKind, types: RegExp, names: RegExp])[] = [
  ["pdf", /^application\/pdf$/, /\.pdf$/i],
  ["word", WORD, /\.docx$/i],
  ["html", /^text\/html$/, /\.html?$/i],
  ["plain", /^(?:text\/.+|application\/(?:json|xml))$/, /\.(?:txt|csv|md|log|xml|json)$/i],
];

type Called = Pick<NamedFile, "name" | "contentType">;

/** What a file is by its type or by its name, whichever tells; null where it is of no kind whose text can be read. */
export const documentKind = ({ name, contentType }: Called): DocumentKind | null =>
  KINDS.find(([, types, names]) => types.test(contentType) || names.test(name))?.[0] ?? null;

/** Whether a file is of a kind whose text can be read. */
export const hasText = (file: Called) => documentKind(file) !== null;
