import { dayAndTime, dayInWords } from "../../core/standing/day-words";
import type { RecordPage } from "../../operations/index.server";
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
