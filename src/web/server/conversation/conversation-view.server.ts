import { canBeUndone } from "../../../core/journal/aspect";
import { effectInWords } from "../../../core/journal/effect-in-words";
import { printMailboxes } from "../../../core/kernel/email-address";
import type { CategoryId, EntryId, MemberId, RecordId } from "../../../core/kernel/ids";
import type { Instant } from "../../../core/kernel/instant";
import { NOTE_EDITABLE_MS } from "../../../core/notes/note-text";
import { reasonInWords } from "../../../core/standing/reason-in-words";
import { STANDING_NAMES } from "../../../core/standing/standing";
import { dayAndTime, dayAndTimeInFull, dayInWords } from "../../../core/time/day-words";
import { htmlOfText } from "../../../core/writing/html-of-text";
import { planForward } from "../../../core/writing/plan-forward";
import type { CorrespondenceMessage, DraftToRead, OpenConversation, TrayNames } from "../../../operations/index.server";
import { memberNames } from "../base/member-names.server";
import { type Reading, rowView } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";
import { letterToGoView } from "../writing/letter-to-go-view.server";
import { ownDraftView } from "../writing/own-draft-view.server";
import { expectationViews, promisedView } from "./expectation-view.server";
import { kindLabel, senderInWords } from "./message-labels.server";
import { messageView } from "./message-view.server";
import { type NoteBlockView, type NoteNames, noteView } from "./note-view.server";
import { textBlocks } from "./text-blocks.server";

/** A conversation ready to be drawn: correspondence and notes in one order, the docket in words, the journal. */
export function conversationView(
  open: OpenConversation,
  people: TrayNames & { readonly slug: string },
  reading: Reading,
) {
  const { memberId, now, zone } = reading;
  const nameOf = memberNames(people.members, reading);
  const { docket } = open;
  const waitsUntil = docket.expectedAt === null ? null : speak(dayInWords(docket.expectedAt, now, zone));
  return {
    row: rowView(open.row, reading),
    now,
    standingName: speak(STANDING_NAMES[docket.standing.kind]),
    reason: speak(reasonInWords(docket.standing, { memberId, now, zone, nameOf })),
    turnWords: turnInWords(open, reading),
    expected: waitsUntil,
    expires: docket.expiresAt === null ? null : speak(dayAndTime(docket.expiresAt, now, zone)),
    expectations: expectationViews(open, nameOf, reading),
    promised: promisedView(open, reading),
    urgency: docket.urgency,
    followUps: docket.followUps.map(({ id, forMember, dueAt, text, doneAt }) => ({
      id,
      whose: nameOf(forMember),
      text,
      due: dueAt === null ? speak("conversation.withoutADate") : speak(dayAndTime(dueAt, now, zone)),
      isOver: doneAt === null && dueAt !== null && dueAt < now,
      isDone: doneAt !== null,
    })),
    restsUntil: docket.restingUntil === null ? null : speak(dayAndTime(docket.restingUntil, now, zone)),
    records: docket.recordIds.flatMap((id) => {
      const record = open.records.find((one) => one.id === id);
      return record === undefined ? [] : [{ id: record.id, code: record.code, title: record.title }];
    }),
    newest: newestInWords(open),
    people: peopleIn(open),
    correspondence: correspondence(
      open,
      nameOf,
      { slug: people.slug, members: people.members, named: open.named },
      reading,
    ),
    ownDrafts: ownDraftViews(open, reading),
    letters: open.letters.map((letter) => letterToGoView(letter, nameOf, reading)),
    drafts: open.drafts.map((draft) => draftView(draft, nameOf, reading)),
    followers: docket.followerIds.map((id) => ({ id, name: nameOf(id) })),
    journal: journalView(open, nameOf, reading),
    passOn: passOnView(open, reading),
    answer: {
      to: printMailboxes(open.answer.to),
      cc: printMailboxes(open.answer.cc),
      subject: open.answer.subject,
      after: open.habit?.after ?? "expect",
      whom: open.habit?.whom ?? "any",
    },
  };
}

const newestOfPerson = ({ messages }: OpenConversation) =>
  messages.findLast(({ direction, kind }) => direction === "in" && kind === "person");

/** What the viewer began of an answer, and of passing the newest message on; null where nothing. */
function ownDraftViews(open: OpenConversation, reading: Reading) {
  const of = (passesOn: string | undefined) => {
    const draft = open.ownDrafts.find(({ content }) => content.passesOn === passesOn);
    return draft === undefined ? null : ownDraftView(draft, reading);
  };
  const passedOn = newestOfPerson(open)?.id;
  return { toAnswer: of(undefined), toForward: passedOn === undefined ? null : of(passedOn) };
}

// How the newest message by a person is passed on; null where none has written.
function passOnView(open: OpenConversation, { now, zone }: Reading) {
  const newest = newestOfPerson(open);
  if (newest === undefined) return null;
  const { id, subject, fromName, fromAddress, recipients, ownText, restText } = newest;
  const sentAt = speak(dayAndTimeInFull(newest.sentAt, now, zone));
  const passed = { subject, fromName, fromAddress, to: recipients.to, sentAt, ownText: ownText || restText };
  const plan = planForward(passed);
  const quoted = [...plan.head, "", plan.text].join("\n");
  return {
    messageId: id,
    start: { to: "", cc: "", subject: plan.subject },
    html: `<p></p>${htmlOfText(speak("conversation.thisReachedUs"))}<blockquote>${htmlOfText(quoted)}</blockquote>`,
    who: fromName || fromAddress,
  };
}

export type PassOnView = NonNullable<ReturnType<typeof passOnView>>;

/** A draft that is written together, ready to be drawn. */
function draftView(draft: DraftToRead, nameOf: (id: MemberId | null) => string, { memberId, now, zone }: Reading) {
  const { id, version, content, writtenBy, holderId, state, note, text, updatedAt } = draft;
  return {
    id,
    version,
    content,
    state,
    note,
    writer: nameOf(writtenBy),
    holder: nameOf(holderId),
    isMine: holderId === memberId,
    when: speak(dayAndTime(updatedAt, now, zone)),
    blocks: textBlocks(text),
  };
}

export type DraftView = ReturnType<typeof draftView>;

export type ConversationView = ReturnType<typeof conversationView>;

function turnInWords(open: OpenConversation, { now, zone }: Reading): string {
  const messages = speak("conversation.messages", { count: open.messages.length });
  const notes = open.docket.marks.filter(([, kind]) => kind === "n").length;
  const counted = notes === 0 ? messages : `${messages}, ${speak("conversation.notes", { notes })}`;
  const { turn } = open.docket;
  if (turn.since === null) return counted;
  const why = {
    "no-person-wrote": "",
    "they-wrote": speak("conversation.theyWroteLast"),
    "we-wrote": speak("conversation.weWroteLast"),
    bounced: speak("conversation.ourMessageCameBack"),
    "by-hand":
      turn.kind === "us" ? speak("conversation.stillOurMoveByHand") : speak("conversation.noAnswerNeededByHand"),
  }[turn.rule];
  return `${counted} · ${why}, ${speak(dayAndTime(turn.since, now, zone))}`;
}

// What the docket says of the newest message from outside: who seems to have sent it, and what it was taken for.
function newestInWords(open: OpenConversation): { readonly sender: string | null; readonly readAs: string } | null {
  const newest = open.messages.findLast(({ direction }) => direction === "in");
  if (newest === undefined) return null;
  const { trust, kind, kindReason } = newest;
  const sender = trust === null ? null : senderInWords(trust);
  return { sender, readAs: `${kindLabel(kind) ?? speak("conversation.aPersonsMessage")}; ${worded(kindReason)}` };
}

function peopleIn(open: OpenConversation): string[] {
  const outside = open.messages.filter(({ direction, kind }) => direction === "in" && kind !== "bounce");
  return [...new Set(outside.map(({ fromName, fromAddress }) => fromName || fromAddress))].slice(0, 6);
}

/** A message or a note in the correspondence. */
export type CorrespondenceItem =
  | ({ readonly type: "message"; readonly filedAlone: ReturnType<typeof filedAlone> } & ReturnType<typeof messageView>)
  | ({ readonly type: "note" } & NoteView);

/** A note among the messages. */
export type NoteView = {
  readonly id: string;
  readonly entryId: EntryId;
  readonly who: string;
  readonly when: string;
  readonly blocks: readonly NoteBlockView[];
  /** The text as it was written, where the reader may write it anew; null where not. */
  readonly editable: string | null;
  readonly isEdited: boolean;
};

/** A message in it. */
export type Message = Extract<CorrespondenceItem, { type: "message" }>;

function correspondence(
  open: OpenConversation,
  nameOf: (id: MemberId | null) => string,
  names: NoteNames,
  reading: Reading,
): CorrespondenceItem[] {
  const { now, zone } = reading;
  const messages = open.messages.map((message) => ({
    at: message.sentAt,
    item: {
      type: "message" as const,
      ...messageView(message, nameOf, reading),
      filedAlone: filedAlone(open, message),
    },
  }));
  const standing = open.journal.filter(({ isUndo, undone }) => !isUndo && !undone);
  const notes = standing.flatMap(({ effect, by, id, at, version }) => {
    if (effect.kind !== "noted") return [];
    const edits = standing.flatMap((line) =>
      line.effect.kind === "note-edited" && line.effect.entryId === id ? [line.effect.text] : [],
    );
    const text = edits.at(-1) ?? effect.text;
    const mayEdit = by === reading.memberId && at + NOTE_EDITABLE_MS > now;
    const item = {
      type: "note" as const,
      id: `note-${version}`,
      entryId: id,
      who: nameOf(by),
      when: speak(dayAndTime(at, now, zone)),
      blocks: noteView(text, names),
      editable: mayEdit ? text : null,
      isEdited: edits.length > 0,
    };
    return [{ at, item }];
  });
  return [...messages, ...notes].toSorted((a, b) => a.at - b.at).map(({ item }) => item);
}

// Where a message or its attachments are filed by themselves, of what the reader may know of.
function filedAlone({ docket, records }: OpenConversation, { id, attachments }: CorrespondenceMessage) {
  return docket.filedParts.flatMap(({ recordId, messageId, attachment }) => {
    const record = records.find((one) => one.id === recordId);
    if (messageId !== id || record === undefined) return [];
    const fileName =
      attachments.find(({ index }) => index === attachment)?.fileName ?? speak("conversation.anAttachment");
    return [
      {
        recordId,
        code: record.code,
        attachment,
        what: attachment === null ? speak("conversation.thisMessage") : fileName,
      },
    ];
  });
}

const SYSTEM_MOVES: ReadonlySet<string> = new Set(["arrived", "replied", "bounced"]);

// Mail that is out cannot be called back, nor can what went with it; what the tray found out stands, but for what it joined.
function mayBeUndone(line: OpenConversation["journal"][number], sent: ReadonlySet<string>): boolean {
  return canBeUndone(line) && !line.isUndo && !line.undone && !sent.has(line.batchId);
}

function journalView(open: OpenConversation, nameOf: (id: MemberId | null) => string, { now, zone }: Reading) {
  const names = {
    member: (id: MemberId) => {
      const name = nameOf(id);
      return name === speak("common.you") ? speak("conversation.youInside") : name;
    },
    category: (id: CategoryId) => open.categoryNames.get(id) ?? speak("conversation.aCategory"),
    record: (id: RecordId) => open.records.find((record) => record.id === id)?.code ?? speak("conversation.aRecord"),
    day: (at: Instant) => speak(dayInWords(at, now, zone)),
  };
  const sent = new Set<string>(open.messages.map(({ id }) => id));
  const decisions = open.journal.map((line) => ({
    version: line.version,
    when: speak(dayAndTime(line.at, now, zone)),
    words: `${line.rule === undefined ? nameOf(line.by) : speak("conversation.theRule", { name: line.rule.name })} ${line.isUndo ? speak("conversation.tookBack") : ""}${speak(effectInWords(line.effect, names, line.by))}${line.rule === undefined ? "" : ` (${line.rule.why})`}`,
    batchId: mayBeUndone(line, sent) ? line.batchId : null,
    undone: line.undone,
  }));
  const moves = open.docket.passages
    .filter(({ standing }) => SYSTEM_MOVES.has(standing.reason.kind))
    .map(({ version, at, standing: { kind, reason } }) => ({
      version,
      when: speak(dayAndTime(at, now, zone)),
      words: `${speak(STANDING_NAMES[kind])}: ${"who" in reason ? speak("conversation.wrote", { who: reason.who }) : speak("conversation.aMessageCameBackUndelivered")}`,
      batchId: null,
      undone: false,
    }));
  return [...decisions, ...moves].toSorted((a, b) => b.version - a.version);
}
