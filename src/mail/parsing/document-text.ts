import mammoth from "mammoth";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import type { NamedFile } from "../../core/kernel/named-file";
import { type DocumentKind, documentKind } from "./document-kind";
import { textOfHtml } from "./text-of-html";

const asText = async (content: Uint8Array) => new TextDecoder().decode(content);

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

const READERS: Readonly<Record<DocumentKind, (content: Uint8Array) => Promise<string>>> = {
  pdf: ofPdf,
  word: async (content) => (await mammoth.extractRawText({ buffer: Buffer.from(content) })).value,
  html: async (content) => textOfHtml(await asText(content)),
  plain: asText,
};

/**
 * The text of a file: PDF (ISO 32000), Word documents (ECMA-376), HTML and plain text; null for other kinds. Throws where
 * the file is not what it says it is. For a thread of its own, as a file from outside may take its time, and as what
 * reads it is large.
 */
export async function textOfDocument(file: NamedFile): Promise<string | null> {
  const kind = documentKind(file);
  return kind === null ? null : READERS[kind](file.content);
}
