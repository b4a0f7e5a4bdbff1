import { effectInWords } from "../../core/journal/effect-in-words";
import { mailboxName, printMailboxes } from "../../core/kernel/email-address";
import type { CategoryId, MemberId, RecordId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { dayAndTime, dayInWords } from "../../core/standing/day-words";
import { reasonInWords } from "../../core/standing/reason-in-words";
import { STANDING_NAMES } from "../../core/standing/standing";
import type { CorrespondenceMessage, OpenConversation, TrayNames } from "../../operations/index.server";
import { type Reading, rowView } from "./words.server";

/** A conversation ready to be drawn: correspondence and notes in one order, the docket in words, the journal. */
export function conversationView(open: OpenConversation, people: TrayNames, reading: Reading) {
  const { memberId, now, zone } = reading;
  const nameOf = (id: MemberId | null) =>
    id === null
      ? "The tray"
      : id === memberId
        ? "You"
        : (people.members.find((member) => member.id === id)?.name ?? "A colleague");
  const { docket } = open;
  const waitsUntil = docket.expectedAt === null ? null : dayInWords(docket.expectedAt, now, zone);
  return {
    row: rowView(open.row, reading),
    now,
    standingName: STANDING_NAMES[docket.standing.kind],
    reason: reasonInWords(docket.standing, { memberId, now, zone, nameOf }),
    turnWords: turnInWords(open, reading),
    expected: waitsUntil,
    restsUntil: docket.restingUntil === null ? null : dayAndTime(docket.restingUntil, now, zone),
    records: docket.recordIds.flatMap((id) => {
      const record = open.records.find((one) => one.id === id);
      return record === undefined ? [] : [{ id: record.id, code: record.code, title: record.title }];
    }),
    people: peopleIn(open),
    correspondence: correspondence(open, nameOf, reading),
    journal: journalView(open, people, nameOf, reading),
    answer: { to: printMailboxes(open.answer.to), cc: printMailboxes(open.answer.cc), subject: open.answer.subject },
  };
}

export type ConversationView = ReturnType<typeof conversationView>;

function turnInWords(open: OpenConversation, { now, zone }: Reading): string {
  const messages = open.messages.length === 1 ? "1 message" : `${open.messages.length} messages`;
  const notes = open.docket.marks.filter(([, kind]) => kind === "n").length;
  const counted = notes === 0 ? messages : `${messages}, ${notes === 1 ? "1 note" : `${notes} notes`}`;
  const { turn } = open.docket;
  if (turn.kind === "nobody") return counted;
  return `${counted} · ${turn.kind === "us" ? "they wrote last" : "we wrote last"}, ${dayAndTime(turn.since, now, zone)}`;
}

function peopleIn(open: OpenConversation): string[] {
  const outside = open.messages.filter(({ direction, kind }) => direction === "in" && kind !== "bounce");
  return [...new Set(outside.map(({ fromName, fromAddress }) => fromName || fromAddress))].slice(0, 6);
}

/** A message or a note in the correspondence. */
export type CorrespondenceItem =
  | ({ readonly type: "message" } & ReturnType<typeof messageView>)
  | { readonly type: "note"; readonly id: string; readonly who: string; readonly when: string; readonly text: string };

function correspondence(
  open: OpenConversation,
  nameOf: (id: MemberId | null) => string,
  reading: Reading,
): CorrespondenceItem[] {
  const { now, zone } = reading;
  const messages = open.messages.map((message) => ({
    at: message.sentAt,
    item: { type: "message" as const, ...messageView(message, nameOf, reading) },
  }));
  const notes = open.journal.flatMap((line) =>
    line.effect.kind === "noted" && !line.isUndo && !line.undone
      ? [
          {
            at: line.at,
            item: {
              type: "note" as const,
              id: `note-${line.version}`,
              who: nameOf(line.by),
              when: dayAndTime(line.at, now, zone),
              text: line.effect.text,
            },
          },
        ]
      : [],
  );
  return [...messages, ...notes].toSorted((a, b) => a.at - b.at).map(({ item }) => item);
}

const KIND_LABELS: Readonly<Partial<Record<CorrespondenceMessage["kind"], string>>> = {
  automatic: "automatic reply",
  bounce: "could not be delivered",
  "delivery-report": "delivery report",
  list: "list mail",
  calendar: "invitation",
};

function messageView(message: CorrespondenceMessage, nameOf: (id: MemberId | null) => string, { now, zone }: Reading) {
  const { id, direction, kind, kindReason, ownText, restText, hasHtml, warnings } = message;
  const ours = direction === "out";
  const { to, cc } = message.recipients;
  const listed = (mailboxes: typeof to) => mailboxes.map(mailboxName).join(", ");
  return {
    ...{ id, ours, kindReason, ownText, restText, hasHtml, warnings },
    kindLabel: KIND_LABELS[kind] ?? null,
    isMachine: kind === "automatic" || kind === "bounce" || kind === "delivery-report",
    showHtmlFirst: hasHtml && kind === "list",
    who: ours && message.authorId !== null ? nameOf(message.authorId) : message.fromName || message.fromAddress,
    address: message.fromAddress,
    to: `to ${listed(to) || "nobody named"}${cc.length === 0 ? "" : `, copied to ${listed(cc)}`}`,
    when: dayAndTime(message.sentAt, now, zone),
    restLines: restText === "" ? 0 : restText.split("\n").length,
    attachments: message.attachments.map(({ index, fileName, size }) => ({ index, fileName, size: sizeInWords(size) })),
    delivery: message.delivery === null ? null : deliveryView(message.delivery),
  };
}

function deliveryView({ state, reason }: NonNullable<CorrespondenceMessage["delivery"]>) {
  switch (state) {
    case "waiting":
      return {
        words: reason === null ? "waiting to go" : `waiting to go, will be tried again: ${reason}`,
        failed: false,
      };
    case "going":
      return { words: "going out", failed: false };
    case "sent":
      return { words: "sent", failed: false };
    case "failed":
      return { words: `not sent: ${reason ?? "no reason given"}`, failed: true };
  }
}

function sizeInWords(bytes: number): string {
  if (bytes < 1_000) return `${bytes} B`;
  return bytes < 1_000_000 ? `${Math.round(bytes / 1_000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}

const SYSTEM_MOVES: ReadonlySet<string> = new Set(["arrived", "replied", "bounced"]);

function journalView(
  open: OpenConversation,
  people: TrayNames,
  nameOf: (id: MemberId | null) => string,
  { now, zone }: Reading,
) {
  const names = {
    member: (id: MemberId) => nameOf(id).replace("You", "you"),
    category: (id: CategoryId) => people.categories.find((category) => category.id === id)?.name ?? "a category",
    record: (id: RecordId) => open.records.find((record) => record.id === id)?.code ?? "a record",
    day: (at: Instant) => dayInWords(at, now, zone),
  };
  const sent = new Set<string>(open.messages.map(({ id }) => id));
  const decisions = open.journal.map((line) => ({
    version: line.version,
    when: dayAndTime(line.at, now, zone),
    words: `${nameOf(line.by)} ${line.isUndo ? "took back: " : ""}${effectInWords(line.effect, names, line.by)}`,
    // Mail that is out cannot be called back, nor can what went with it.
    batchId: line.isUndo || line.undone || line.by === null || sent.has(line.batchId) ? null : line.batchId,
    undone: line.undone,
  }));
  const moves = open.docket.passages
    .filter(({ standing }) => SYSTEM_MOVES.has(standing.reason.kind))
    .map(({ version, at, standing: { kind, reason } }) => ({
      version,
      when: dayAndTime(at, now, zone),
      words: `${STANDING_NAMES[kind]}: ${"who" in reason ? `${reason.who} wrote` : "a message came back undelivered"}`,
      batchId: null,
      undone: false,
    }));
  return [...decisions, ...moves].toSorted((a, b) => b.version - a.version);
}
