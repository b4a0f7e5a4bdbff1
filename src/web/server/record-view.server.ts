import { meansInWords } from "../../core/records/filing-means";
import { dayAndTime, dayInWords } from "../../core/standing/day-words";
import type { filingsOf, NamedDocument, RecordPage } from "../../operations/index.server";
import { sizeInWords } from "./conversation-view.server";
import type { Reading } from "./words.server";

/** What the register says of a record, as its card shows it and its form begins. */
export function recordCardView({ entry, parent, under, steps }: RecordPage, { now, zone }: Reading) {
  return {
    edited: {
      ...{ code: entry.code, typeId: entry.typeId, title: entry.title, parentCode: parent?.code ?? "" },
      ...{ responsibleId: entry.responsibleId, addresses: entry.addresses, note: entry.note, access: entry.access },
      version: entry.version,
    },
    opened: dayInWords(entry.createdAt, now, zone),
    closed: entry.closedAt === null ? null : dayInWords(entry.closedAt, now, zone),
    /** Who may know of it; null for everybody. */
    viewers: entry.viewers,
    under: under.map(({ code, title, closed }) => ({ code, title, closed })),
    steps: steps.map(({ id, at, by, words }) => ({ id, by, words, when: dayAndTime(at, now, zone) })),
  };
}

export type RecordCardView = ReturnType<typeof recordCardView>;

/** What is filed on a record as a table: its columns, and a cell of text for each; `key` is what a column is sorted by. */
export function filingsView({ threads, fields }: Awaited<ReturnType<typeof filingsOf>>, { now, zone }: Reading) {
  return {
    fields: fields.map(({ key, label }) => ({ key, label })),
    rows: threads.map((thread) => ({
      ...{ id: thread.id, traySlug: thread.traySlug, filedBy: thread.filedBy, count: thread.messageCount },
      ...{ subject: thread.subject, who: thread.who, fields: thread.fields ?? {} },
      newest: { key: thread.newestAt, words: dayInWords(thread.newestAt, now, zone) },
      filed: {
        key: thread.filedAt ?? 0,
        words: thread.filedAt === null ? "" : dayInWords(thread.filedAt, now, zone),
      },
      means: thread.rule === null ? meansInWords(thread.means) : `rule “${thread.rule}”`,
    })),
  };
}

export type FilingsView = ReturnType<typeof filingsView>;

/** The documents of a record, each with its versions. */
export function documentsView(documents: readonly NamedDocument[], { now, zone }: Reading) {
  return documents.map(({ name, versions }) => ({
    name,
    versions: versions.map(({ messageId, traySlug, index, at, who, direction, contentType, size }) => ({
      ...{ messageId, traySlug, index, who, contentType, size: sizeInWords(size), ours: direction === "out" },
      when: dayInWords(at, now, zone),
    })),
  }));
}

export type DocumentsView = ReturnType<typeof documentsView>;
