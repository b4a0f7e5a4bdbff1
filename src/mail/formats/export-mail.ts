import { Readable } from "node:stream";
import { dateOf, type Instant } from "../../core/kernel/instant";
import { writeTable } from "./table-files";
import { uniqueNames, zipStream } from "./zip";

/** A message on its way out of a tray; its bytes, as they came, are loaded when its turn comes. */
export type ExportedMessage = {
  readonly load: () => Promise<Uint8Array>;
  readonly sentAt: Instant;
  readonly correspondent: string;
  readonly subject: string;
  readonly from: string;
  readonly to: string;
  readonly messageId: string;
};

/** Messages as .eml files in a zip that is written as it is read, with an index in CSV (RFC 4180): which file is what. */
export function emlZip(messages: readonly ExportedMessage[], madeAt: Date): Readable {
  const names = uniqueNames(messages.map((message) => `${fileNameOf(message)}.eml`));
  const index = writeTable(
    ["file", "date", "from", "to", "subject", "messageId"],
    messages.map((message, at) => ({
      ...message,
      file: names[at] ?? "",
      date: dateOf(message.sentAt).toISOString(),
    })),
  );
  const files = messages.map(({ load }, at) => ({ folder: "", name: names[at] ?? "message.eml", load }));
  return zipStream([{ folder: "", name: "index.csv", load: async () => Buffer.from(index) }, ...files], madeAt);
}

/** Messages as one mbox (RFC 4155) that is written as it is read. */
export function mboxStream(messages: readonly ExportedMessage[]): Readable {
  const pieces = async function* () {
    for (const { load, sentAt } of messages) yield mboxOf([{ raw: await load(), sentAt }]);
  };
  return Readable.from(pieces(), { objectMode: false });
}

/** Date, correspondent and subject, as the name of a file. */
export function fileNameOf(message: Pick<ExportedMessage, "sentAt" | "correspondent" | "subject">): string {
  const day = dateOf(message.sentAt).toISOString().slice(0, 16).replace("T", " ").replace(":", "");
  return `${day} ${message.correspondent} ${message.subject || "no subject"}`.replace(/[\\/]/g, "-");
}

/** Messages as one mbox (RFC 4155), lines that could be taken for its separators quoted so that they read back the same (mboxrd). */
export function mboxOf(
  messages: readonly (Pick<ExportedMessage, "sentAt"> & { readonly raw: Uint8Array })[],
): Uint8Array {
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
