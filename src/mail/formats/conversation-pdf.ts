import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname } from "node:path";
import { buffer } from "node:stream/consumers";
import { brokenRuns } from "../../core/kernel/broken-runs";

/** A conversation as it is printed: who wrote what when, and the notes of the colleagues where they are wanted. */
export type PrintedConversation = {
  readonly subject: string;
  /** What stands below the subject: the record, who filed it and when. */
  readonly about: string;
  readonly parts: readonly PrintedPart[];
  /** The moment that the file says it was made: that of its newest part, so that the same is printed the same. */
  readonly made: Date;
};

export type PrintedPart = {
  readonly kind: "message" | "note";
  /** Lines of a name and what it is: From, To, Date. */
  readonly head: readonly (readonly [name: string, text: string])[];
  readonly text: string;
  readonly attachments: readonly string[];
};

// Static, with Latin, Greek, Cyrillic, Hebrew and Arabic letters; what is printed has to be read without fonts of one's own.
const FONTS = `${dirname(createRequire(import.meta.url).resolve("dejavu-fonts-ttf/package.json"))}/ttf`;
const [TEXT, BOLD, SLANTED] = ["DejaVuSans", "DejaVuSans-Bold", "DejaVuSans-Oblique"];

const MARGIN = 56;
const HEAD_INDENT = 70;
const [SIZE, SMALL, TITLE] = [9.5, 8, 15];
const [INK, SOFT, RULE] = ["#1f2326", "#5d6468", "#c9c5ba"];

// Opened once for all that is printed: taking them apart again for each conversation was nine tenths of the time of a large record.
let fonts: ReadonlyMap<string, unknown> | null = null;

async function openFonts(): Promise<ReadonlyMap<string, unknown>> {
  const { create } = await import("fontkit");
  const opened = [TEXT, BOLD, SLANTED].map(async (name = "") => {
    return [name, create(await readFile(`${FONTS}/${name}.ttf`))] as const;
  });
  return new Map(await Promise.all(opened));
}

/** A conversation as a PDF (A4), its pages numbered. */
export async function conversationPdf({ subject, about, parts, made }: PrintedConversation): Promise<Uint8Array> {
  // Loaded with the first printing: every start of the tool would wait for it.
  const { default: PdfDocument } = await import("pdfkit");
  const document = new PdfDocument({
    size: "A4",
    margins: { top: MARGIN, bottom: MARGIN, left: MARGIN, right: MARGIN },
    bufferPages: true,
    info: { Title: subject, CreationDate: made, ModDate: made },
  });
  fonts ??= await openFonts();
  // It takes what fontkit has opened as well as a file, which its types do not say.
  for (const [name, font] of fonts) document.registerFont(name, font as never);
  const written = buffer(document);
  document
    .font(BOLD ?? "")
    .fontSize(TITLE)
    .fillColor(INK)
    .text(printable(subject) || "(no subject)");
  document
    .font(TEXT ?? "")
    .fontSize(SMALL)
    .fillColor(SOFT)
    .text(printable(about))
    .moveDown(1);
  for (const part of parts) printPart(document, part);
  numberPages(document);
  document.end();
  return written;
}

function printPart(document: PDFKit.PDFDocument, { kind, head, text, attachments }: PrintedPart): void {
  const { left, right } = document.page.margins;
  const top = document.y + 2;
  document
    .moveTo(left, top)
    .lineTo(document.page.width - right, top)
    .lineWidth(0.7)
    .strokeColor(RULE)
    .stroke();
  document.y = top + 6;
  for (const [name, words] of head) {
    const y = document.y;
    document
      .font(TEXT ?? "")
      .fontSize(SMALL)
      .fillColor(SOFT)
      .text(name, left, y, { width: HEAD_INDENT });
    document
      .font(BOLD ?? "")
      .fillColor(INK)
      .text(printable(words), left + HEAD_INDENT, y);
    document.x = left;
  }
  document.moveDown(0.5);
  const font = kind === "note" ? SLANTED : TEXT;
  document
    .font(font ?? "")
    .fontSize(SIZE)
    .fillColor(INK)
    .text(printable(text), left, document.y, { lineGap: 1.5 });
  if (attachments.length > 0) {
    document
      .moveDown(0.4)
      .font(TEXT ?? "")
      .fontSize(SMALL)
      .fillColor(SOFT);
    document.text(`Attached: ${printable(attachments.join("; "))}`);
  }
  document.moveDown(1);
}

function numberPages(document: PDFKit.PDFDocument): void {
  const { start, count } = document.bufferedPageRange();
  for (let page = start; page < start + count; page += 1) {
    document.switchToPage(page);
    // Below the margin, where text would otherwise begin a page of its own.
    document.page.margins.bottom = 0;
    document
      .font(TEXT ?? "")
      .fontSize(SMALL)
      .fillColor(SOFT);
    document.text(`${page - start + 1} of ${count}`, MARGIN, document.page.height - MARGIN + 14, {
      width: document.page.width - 2 * MARGIN,
      align: "right",
      lineBreak: false,
    });
  }
}

// About as many letters as a line has.
const MOST_UNBROKEN = 60;
const BREAK_HERE = "\u200b";

// Control characters have no form on paper; a tab is some room.
function printable(text: string): string {
  const plain = text
    .replaceAll("\t", "    ")
    .replace(/\r\n?/g, "\n")
    .replace(/[^\P{Cc}\n]/gu, "");
  return brokenRuns(plain, MOST_UNBROKEN).join(BREAK_HERE);
}
