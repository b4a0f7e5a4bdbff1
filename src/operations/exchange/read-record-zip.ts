import { createHash } from "node:crypto";
import { err, ok, type Result } from "../../core/kernel/result";
import { type OpenZip, readRows, spoolMbox } from "../../mail/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf, type Wording } from "../../texts/said";

const said = saidOf(recordsTexts);

/** A line of a table in it, by the names of its columns. */
export type Line = Readonly<Record<string, string>>;
/** A file of the zip, with its line of the index. */
export type Letter = { readonly line: Line; readonly load: () => Promise<Uint8Array> };
/** A record in a zip, read and found to be whole. */
export type ReadZip = {
  readonly table: string;
  readonly code: string;
  readonly letters: readonly Letter[];
  /** Lets go of where they lie; null where nothing has to be. */
  readonly close: (() => Promise<void>) | null;
  readonly documents: readonly Letter[];
  readonly notes: readonly Line[];
};

const DAMAGED = said("records.thatIsNoZipIt");

/** Reads the zip of a record, and compares every file with its index. */
export async function readRecordZip(zip: OpenZip): Promise<Result<ReadZip, Wording>> {
  try {
    const [index, table] = [await zip.read("index.csv"), await zip.read("record.csv")];
    const lines = index === null ? null : readRows(index.toString());
    const records = table === null ? null : readRows(table.toString());
    const code = records?.at(-1)?.code ?? "";
    if (lines === null || table === null || code === "") return err(said("records.thatIsNoRecordTaken"));
    const altered = await alteredFile(zip, lines);
    if (altered !== null) return err(said("records.isNotWhatTheIndex", { altered }));
    const letters = await lettersIn(zip, lines);
    if (letters === null) return err(said("records.theMessagesInItAre"));
    const documents = lines.filter(({ kind, alone }) => kind === "document" && alone === "yes");
    const notes = readRows((await zip.read("notes.csv"))?.toString() ?? "") ?? [];
    return ok({
      table: table.toString(),
      code,
      ...letters,
      notes,
      documents: documents.map((line) => ({ line, load: () => fileIn(zip, line) })),
    });
  } catch {
    return err(DAMAGED);
  }
}

/** The first file that is not what the index says; null where all are. */
async function alteredFile(zip: OpenZip, lines: readonly Line[]): Promise<string | null> {
  // All messages of an mbox stand in one file.
  const sums = new Map(lines.map(({ file = "", sha256 = "" }) => [file, sha256]));
  for (const [file, sha256] of sums) {
    const content = await zip.stream(file);
    const hash = createHash("sha256");
    if (content === null) return file;
    for await (const piece of content) hash.update(piece);
    if (hash.digest("hex") !== sha256) return file;
  }
  return null;
}

async function fileIn(zip: OpenZip, { file = "" }: Line): Promise<Uint8Array> {
  const content = await zip.read(file);
  if (content === null) throw new Error(`${file} was there a moment ago`);
  return content;
}

async function lettersIn(zip: OpenZip, lines: readonly Line[]): Promise<Pick<ReadZip, "letters" | "close"> | null> {
  const named = lines.filter(({ kind }) => kind === "message");
  const mbox = await zip.stream("messages.mbox");
  if (mbox === null) return { letters: named.map((line) => ({ line, load: () => fileIn(zip, line) })), close: null };
  const spooled = await spoolMbox(mbox);
  const letters = named.map((line, at) => ({ line, load: () => spooled.read(at) }));
  if (spooled.count === named.length) return { letters, close: spooled.close };
  await spooled.close();
  return null;
}
