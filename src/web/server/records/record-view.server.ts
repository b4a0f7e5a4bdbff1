import { sizeInWords } from "../../../core/kernel/size-in-words";
import { OPEN_STANDINGS } from "../../../core/lists/scope";
import { meansInWords } from "../../../core/records/filing-means";
import { STANDING_NAMES } from "../../../core/standing/standing";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type { activityOn, filingsOf, NamedDocument, OnRecord, RecordPage } from "../../../operations/index.server";
import { SHOWN_TYPES } from "../base/download.server";
import { type Reading, rowView } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** What the register says of a record, as its card shows it and its form begins. */
export function recordCardView({ entry, parent, under, steps }: RecordPage, { now, zone }: Reading) {
  return {
    edited: {
      code: entry.code,
      typeId: entry.typeId,
      title: entry.title,
      parentCode: parent?.code ?? "",
      responsibleId: entry.responsibleId,
      addresses: entry.addresses,
      note: entry.note,
      access: entry.access,
      version: entry.version,
    },
    opened: speak(dayInWords(entry.createdAt, now, zone)),
    closed: entry.closedAt === null ? null : speak(dayInWords(entry.closedAt, now, zone)),
    /** Who may know of it; null for everybody. */
    viewers: entry.viewers,
    under: under.map(({ code, title, closed }) => ({ code, title, closed })),
    steps: steps.map(({ id, at, by, words }) => ({ id, by, words, when: speak(dayAndTime(at, now, zone)) })),
  };
}

export type RecordCardView = ReturnType<typeof recordCardView>;

/** What is filed on a record as a table: its columns, and a cell of text for each; `key` is what a column is sorted by. */
export function filingsView({ threads, fields }: Awaited<ReturnType<typeof filingsOf>>, { now, zone }: Reading) {
  return {
    fields,
    rows: threads.map((thread) => ({
      id: thread.id,
      traySlug: thread.traySlug,
      filedBy: thread.filedBy,
      count: thread.messageCount,
      standing: thread.standing,
      subject: thread.subject,
      who: thread.who,
      fields: thread.fields ?? {},
      newest: { key: thread.newestAt, words: speak(dayInWords(thread.newestAt, now, zone)) },
      filed: {
        key: thread.filedAt ?? 0,
        words: thread.filedAt === null ? "" : speak(dayInWords(thread.filedAt, now, zone)),
      },
      means:
        thread.rule === null ? speak(meansInWords(thread.means)) : speak("records.ruleNamed", { rule: thread.rule }),
    })),
  };
}

export type FilingsView = ReturnType<typeof filingsView>;

/** The documents of a record, each with its versions; those that somebody put there can be taken off by their `id`. */
export function documentsView(documents: readonly NamedDocument[], slug: string, code: string, { now, zone }: Reading) {
  return documents.map(({ name, versions }) => ({
    name,
    versions: versions.map((version) => ({
      id: version.id,
      href:
        version.id === null
          ? `/${version.traySlug}/messages/${version.messageId}/attachments/${version.index}`
          : `/${slug}/records/${code}/documents/${version.id}`,
      isShown: SHOWN_TYPES.test(version.contentType),
      who: version.who,
      contentType: version.contentType,
      size: speak(sizeInWords(version.size)),
      ours: version.id === null && version.direction === "out",
      when: speak(dayInWords(version.at, now, zone)),
    })),
  }));
}

/** The documents of records to choose from, each version by itself. */
export function documentChoices(
  found: readonly { readonly code: string; readonly documents: readonly NamedDocument[] }[],
  { now, zone }: Reading,
) {
  return found.flatMap(({ code, documents }) =>
    documents.flatMap(({ name, versions }) =>
      versions.map(({ sha256, who, at, size }) => ({
        code,
        name,
        sha256,
        words: `${who}, ${speak(dayInWords(at, now, zone))}, ${speak(sizeInWords(size))}`,
      })),
    ),
  );
}

export type DocumentsView = ReturnType<typeof documentsView>;

/** The correspondence on a record: conversations in two halves, what is filed by itself, and whether there is more. */
export function mailView({ conversations, parts, isMore }: OnRecord, reading: Reading) {
  const { now, zone } = reading;
  return {
    isMore,
    conversations: conversations.map(({ messages, traySlug, ...row }) => ({
      row: rowView(row, reading),
      traySlug,
      isOpen: (OPEN_STANDINGS as readonly string[]).includes(row.standing),
      standingName: speak(STANDING_NAMES[row.standing]),
      messages: messages.map(({ direction, fromName, ownText, sentAt }) => ({
        ours: direction === "out",
        who: fromName,
        text: ownText,
        when: speak(dayAndTime(sentAt, now, zone)),
      })),
    })),
    parts: parts.map(({ messageId, attachment, fileName, conversationId, traySlug, subject, who, ...part }) => ({
      messageId,
      attachment,
      fileName,
      conversationId,
      traySlug,
      subject,
      who,
      ours: part.direction === "out",
      text: part.ownText,
      when: speak(dayAndTime(part.sentAt, now, zone)),
      filedBy: part.filedBy,
      filed: `${speak(dayInWords(part.filedAt, now, zone))}, ${speak(meansInWords(part.means))}`,
    })),
  };
}

export type MailView = ReturnType<typeof mailView>;

/** How much was written in each month, as a chart and its words have it. */
export function monthsView(months: Awaited<ReturnType<typeof activityOn>>) {
  return months.map(({ month, came, went }) => ({
    label: speak({ at: Date.parse(`${month}-01`), zone: "UTC", form: "short-month" }),
    came,
    went,
  }));
}
