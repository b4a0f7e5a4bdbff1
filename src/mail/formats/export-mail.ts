import { dateOf, type Instant } from "../../core/kernel/instant";
import { writeTable } from "./table-files";
import { uniqueNames, zipOf } from "./zip";

/** A message on its way out of a tray, its bytes as they came. */
export type ExportedMessage = {
  readonly raw: Uint8Array;
  readonly sentAt: Instant;
  readonly correspondent: string;
  readonly subject: string;
  readonly from: string;
  readonly to: string;
  readonly messageId: string;
};

/** Messages as .eml files in a zip, with an index in CSV (RFC 4180): which file is what. */
export async function emlZip(messages: readonly ExportedMessage[]): Promise<Uint8Array> {
  const names = uniqueNames(messages.map((message) => `${fileNameOf(message)}.eml`));
  const index = writeTable(
    ["file", "date", "from", "to", "subject", "messageId"],
    messages.map((message, at) => ({
      ...message,
      file: names[at] ?? "",
      date: dateOf(message.sentAt).toISOString(),
    })),
  );
  return zipOf([
    { name: "index.csv", content: Buffer.from(index) },
    ...messages.map(({ raw }, at) => ({ name: names[at] ?? "message.eml", content: raw })),
  ]);
}

/** Date, correspondent and subject, as the name of a file. */
export function fileNameOf(message: Pick<ExportedMessage, "sentAt" | "correspondent" | "subject">): string {
  const day = dateOf(message.sentAt).toISOString().slice(0, 16).replace("T", " ").replace(":", "");
  return `${day} ${message.correspondent} ${message.subject || "no subject"}`.replace(/[\\/]/g, "-");
}

/** Messages as one mbox (RFC 4155), lines that could be taken for its separators quoted so that they read back the same (mboxrd). */
export function mboxOf(messages: readonly Pick<ExportedMessage, "raw" | "sentAt">[]): Uint8Array {
  return Buffer.concat(
    messages.flatMap(({ raw, sentAt }) => [
      Buffer.from(`From MAILER-DAEMON ${ascTime(dateOf(sentAt))}\n`),
      quotedFrom(raw),
      Buffer.from(raw.at(-1) === NEWLINE ? "\n" : "\n\n"),
    ]),
  );
}

const NEWLINE = 10;

// "Tue Nov 24 08:30:00 2026": ctime in UTC, as RFC 4155 has it.
function ascTime(date: Date): string {
  const [weekday, day, month, year, time] = date.toUTCString().replace(",", "").split(" ");
  return `${weekday} ${month} ${day} ${time} ${year}`;
}

function quotedFrom(raw: Uint8Array): Uint8Array {
  const text = Buffer.from(raw).toString("latin1");
  return /^>*From /m.test(text) ? Buffer.from(text.replace(/^(>*From )/gm, ">$1"), "latin1") : raw;
}
