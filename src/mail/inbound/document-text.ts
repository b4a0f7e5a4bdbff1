import mammoth from "mammoth";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import type { NamedFile } from "../../core/kernel/named-file";
import { textOfHtml } from "./text-of-html";

type Reader = (content: Uint8Array) => Promise<string>;

const asText: Reader = async (content) => new TextDecoder().decode(content);

// A scanned book has no text however long one looks.
const MOST_PAGES = 500;

async function ofPdf(content: Uint8Array): Promise<string> {
  // Nothing of it runs, and no font of the machine is asked for.
  const options = { isEvalSupported: false, disableFontFace: true, useSystemFonts: false, verbosity: 0 };
  const loading = getDocument({ data: Uint8Array.from(content), ...options });
  const pages: string[] = [];
  try {
    const document = await loading.promise;
    for (let number = 1; number <= Math.min(document.numPages, MOST_PAGES); number += 1) {
      const { items } = await (await document.getPage(number)).getTextContent();
      pages.push(items.map((item) => ("str" in item ? `${item.str}${item.hasEOL ? "\n" : ""}` : "")).join(""));
    }
  } finally {
    await loading.destroy();
  }
  return pages.join("\n");
}

const DOCX = "application/vnd.openxmlformats-officedocument.wordprocessingml.document";

const READERS: readonly (readonly [types: RegExp, names: RegExp, reads: Reader])[] = [
  [/^application\/pdf$/, /\.pdf$/i, ofPdf],
  [
    new RegExp(`^${DOCX.replaceAll(".", "\\.")}$`),
    /\.docx$/i,
    async (content) => (await mammoth.extractRawText({ buffer: Buffer.from(content) })).value,
  ],
  [/^text\/html$/, /\.html?$/i, async (content) => textOfHtml(await asText(content))],
  [/^(?:text\/.+|application\/(?:json|xml))$/, /\.(?:txt|csv|md|log|xml|json)$/i, asText],
];

const readerOf = ({ name, contentType }: Pick<NamedFile, "name" | "contentType">) =>
  READERS.find(([types, names]) => types.test(contentType) || names.test(name))?.[2] ?? null;

/** Whether a file is of a kind whose text can be read. */
export const hasText = (file: Pick<NamedFile, "name" | "contentType">) => readerOf(file) !== null;

/**
 * The text of a file: PDF (ISO 32000), Word documents (ECMA-376), HTML and plain text; null for other kinds. Throws where
 * the file is not what it says it is. For a thread of its own, as a file from outside may take its time.
 */
export async function textOfDocument(file: NamedFile): Promise<string | null> {
  const reads = readerOf(file);
  return reads === null ? null : reads(file.content);
}
