import type { ConversationId } from "../../core/kernel/ids";
import { dateOf, type Instant } from "../../core/kernel/instant";
import { meansInWords } from "../../core/records/filing-means";
import { writeTable } from "../../mail/index";
import type { FiledThread, MessageOnRecord, PartOnRecord } from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import { writtenDown } from "../base/written-down";
import { mailboxLine } from "../reading/print-conversation";
import type { ZipContents } from "./zip-contents";

/** A line of the index, by its columns. */
export type Line = Readonly<Record<string, string>>;
/** The columns of `index.csv`; those of the filing fields of its type come after them. */
const INDEX_COLUMNS = [
  "kind",
  "file",
  "sha256",
  "size",
  "date",
  "direction",
  "from",
  "to",
  "cc",
  "subject",
  "attachments",
  "messageId",
  "conversation",
  "alone",
  "filedAt",
  "filedBy",
  "means",
] as const;
/** What stands before the label of a filing field in the name of its column. */
export const FIELD_PREFIX = "field: ";

/** What it says of what came with no message, or without it. */
export const aloneBy = (who: string, at: Instant): Line => ({
  alone: "yes",
  from: who,
  date: dateOf(at).toISOString(),
});

/** What the index says of a message. */
export function particularsOf(contents: ZipContents, message: MessageOnRecord): Line {
  return {
    date: dateOf(message.sentAt).toISOString(),
    direction: message.direction,
    subject: message.subject,
    from: mailboxLine({ name: message.fromName, address: message.fromAddress }),
    to: message.recipients.to.map(mailboxLine).join(", "),
    cc: message.recipients.cc.map(mailboxLine).join(", "),
    attachments: message.attachments
      .filter(({ inline }) => !inline)
      .map(({ fileName }) => fileName)
      .join("; "),
    messageId: message.messageId ?? "",
    ...filingOf(contents, message.conversationId),
    ...aloneOf(contents, message),
  };
}

// A message of a conversation that is not on the record itself.
function aloneOf(contents: ZipContents, { id, conversationId }: MessageOnRecord): Line {
  if (contents.record === null || contents.filings.has(conversationId)) return {};
  const part = contents.parts.find(({ messageId, attachment }) => messageId === id && attachment === null);
  return part === undefined ? {} : { alone: "yes", ...filingOfPart(contents, part) };
}

/** How a part was filed. */
export const filingOfPart = (
  contents: ZipContents,
  part: Pick<PartOnRecord, "filedAt" | "filedBy" | "means" | "fields" | "earlier">,
) => filedInWords(contents, { ...part, rule: null });

/** How a conversation was filed; on several records, what is said of each after the other. */
export function filingOf(contents: ZipContents, id: ConversationId): Line {
  const filings = (contents.filings.get(id) ?? []).map(({ code, ...thread }) => ({
    ...(code === undefined ? {} : { records: code }),
    ...filedInWords(contents, thread),
  }));
  const columns = [...new Set(filings.flatMap((filing) => Object.keys(filing)))];
  const joined = columns.map((column) => [column, filings.map((filing: Line) => filing[column] ?? "").join("; ")]);
  return { conversation: contents.printedAs.get(id) ?? "", ...Object.fromEntries(joined) };
}

/** Who filed something, when and how, with its particulars; as it was elsewhere where it was taken in. */
export function filedInWords(
  { nameOf, labels }: ZipContents,
  {
    earlier,
    filedAt,
    filedBy,
    means,
    fields,
    rule,
  }: Omit<FiledThread, "id" | "standing" | "traySlug" | "subject" | "who" | "newestAt" | "messageCount">,
): Line {
  const at = earlier?.at ?? filedAt;
  const given = Object.entries(fields ?? {}).map(
    ([key, value]) => [`${FIELD_PREFIX}${labels.get(key) ?? key}`, value] as const,
  );
  return {
    filedAt: at === null ? "" : dateOf(at).toISOString(),
    filedBy: earlier?.by ?? nameOf(filedBy),
    means:
      earlier?.how ??
      (rule === null
        ? writtenDown(meansInWords(means))
        : writtenDown(saidOf(recordsTexts)("records.byTheRule", { rule }))),
    ...Object.fromEntries(given),
  };
}

/** The SHA-256 and the size of each file, by its path. */
export type Sums = ReadonlyMap<string, { readonly sha256: string; readonly size: number }>;

/** The index as CSV, once it is known what became of each file. */
export function indexOf(lines: readonly Line[], sums: Sums): string {
  const columns = [...new Set([...INDEX_COLUMNS, ...lines.flatMap((line) => Object.keys(line))])];
  const rows = lines.map((line) => {
    const sum = sums.get(line.file ?? "");
    const whole: Line = { ...line, sha256: sum?.sha256 ?? "", size: String(sum?.size ?? "") };
    return Object.fromEntries(columns.map((column) => [column, whole[column] ?? ""]));
  });
  return writeTable(columns, rows);
}
