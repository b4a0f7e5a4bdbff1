import { type Docket, deriveDocket } from "../../core/docket/derive-docket";
import { type CategoryId, type ConversationId, type MemberId, type MessageId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { isStandingKind } from "../../core/standing/standing";
import { recordCodePlaces } from "../../core/threading/record-codes";
import { isOpen } from "../../core/turns/expectations";
import type { Found } from "../../core/writing/detected-questions";
import type { AnswerPlan } from "../../core/writing/plan-answer";
import { planAnswer } from "../../core/writing/plan-answer";
import { sanitiseHtml, textOfHtml } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import {
  type CorrespondenceMessage,
  conversationRow,
  correspondenceOf,
  draftsOf,
  type JournalLine,
  journalOf,
  markRead,
  markReadUpTo,
  markUnreadFrom,
  messagePlace,
  type OwnDraft,
  ownDraftsIn,
  type SharedDraft,
  subjectsOf,
} from "../../storage/conversation/index";
import { categoryNames, factsOf, joinedTo } from "../../storage/facts/index";
import type { SheetRow } from "../../storage/lists/index";
import { laterLettersIn } from "../../storage/mail/index";
import { type FilingRecord, recordsByCodes, recordsByIds } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { readOfConversation } from "../people/notifications";
import { type LetterInList, lettersInWords } from "./letters-in-words";
import { type ReplyDefault, replyDefaultFor } from "./reply-defaults";
import { promisedBy } from "./text-suggestions";

/** A conversation with everything on it. */
export type OpenConversation = {
  readonly row: SheetRow;
  readonly docket: Docket;
  readonly messages: readonly CorrespondenceMessage[];
  readonly journal: readonly JournalLine[];
  /** What the newest message of theirs says they will do by a day, while nothing is awaited. */
  readonly promised: Found | null;
  readonly records: readonly FilingRecord[];
  /** What the categories in its journal are called, also those that are no more. */
  readonly categoryNames: ReadonlyMap<CategoryId, string>;
  readonly answer: AnswerPlan;
  /** What she chose when she last answered the same person. */
  readonly habit: ReplyDefault | null;
  /** The answers to it that colleagues write together. */
  readonly drafts: readonly DraftToRead[];
  /** What the viewer writes on by herself, the newest first. */
  readonly ownDrafts: readonly OwnDraft[];
  /** What is to go into it later. */
  readonly letters: readonly LetterInList[];
  readonly named: NamedInNotes;
};

/** A shared draft with its text. */
export type DraftToRead = SharedDraft & { readonly text: string };

/** What the notes of a conversation lead to: records by their codes, conversations of the tray by their links. */
export type NamedInNotes = {
  readonly records: readonly FilingRecord[];
  readonly conversations: Awaited<ReturnType<typeof subjectsOf>>;
};

/**
 * Opens a conversation for a member, who has then read it, unless it is got ready ahead of her coming to it; null when the
 * tray has none of this id.
 */
export async function openConversation(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  when: "now" | "ahead" = "now",
): Promise<OpenConversation | null> {
  const row = await conversationRow(deps.db, grant, id);
  if (row === null) return null;
  // What became a part of another conversation is found there.
  const whole = isStandingKind(row.standing) ? null : await joinedTo(deps.db, grant.tray.id, id);
  if (whole !== null) return openConversation(deps, grant, whole, when);
  const [facts, messages, journal] = await Promise.all([
    factsOf(deps.db, [id]),
    correspondenceOf(deps.db, grant, id),
    journalOf(deps.db, grant, id),
    row.unread && when === "now" ? markRead(deps.db, grant.memberId, id, deps.now()) : null,
  ]);
  const docket = deriveDocket(facts.get(id) ?? NOTHING_HAPPENED);
  const categoryIds = journal.flatMap(({ effect }) => ("categoryId" in effect ? [effect.categoryId] : []));
  const [records, names, drafts, ownDrafts, letters, named] = await Promise.all([
    recordsByIds(deps.db, grant, [...new Set([...docket.recordIds, ...recordsNamed(journal)])]),
    categoryNames(deps.db, categoryIds),
    draftsOf(deps.db, grant, id),
    ownDraftsIn(deps.db, grant, id),
    laterLettersIn(deps.db, grant, id),
    namedInNotes(deps, grant, journal),
    row.unread && when === "now" ? readOfConversation(deps, grant, id) : null,
  ]);
  const answer = planAnswer(messages, grant.tray.addresses);
  const [promised, habit] = await Promise.all([
    promiseOf(deps, grant, messages, docket),
    replyDefaultFor(deps.db, grant.memberId, answer.to[0]?.address),
  ]);
  const readable = drafts.map((draft) => ({ ...draft, text: textOfHtml(sanitiseHtml(draft.content.html).html) }));
  return {
    row,
    docket,
    messages,
    journal: journal.filter(({ effect }) => isHers(effect, records)),
    records,
    categoryNames: names,
    answer,
    habit,
    drafts: readable,
    ownDrafts,
    letters: lettersInWords(letters),
    named,
    promised,
  };
}

async function promiseOf(
  deps: Deps,
  grant: TrayGrant,
  messages: readonly CorrespondenceMessage[],
  { turn, expectations }: Docket,
): Promise<Found | null> {
  const newest = messages.at(-1);
  if (newest === undefined || newest.direction === "out" || turn.rule !== "they-wrote") return null;
  return expectations.some(isOpen) ? null : promisedBy(deps, grant, newest.ownText, newest.sentAt);
}

const LINKED = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

async function namedInNotes(deps: Deps, grant: TrayGrant, journal: readonly JournalLine[]): Promise<NamedInNotes> {
  const texts = journal.flatMap(({ effect }) =>
    effect.kind === "noted" || effect.kind === "note-edited" ? [effect.text] : [],
  );
  const codes = texts.flatMap((text) => recordCodePlaces(text).map(({ code }) => code));
  const ids = texts.flatMap((text) => text.match(LINKED) ?? []).map((one) => trustedId<ConversationId>(one));
  const [records, conversations] = await Promise.all([
    recordsByCodes(deps.db, grant, [...new Set(codes)]),
    subjectsOf(deps.db, grant, [...new Set(ids)]),
  ]);
  return { records, conversations };
}

// That something was filed on a record that she may not know of has not happened for her.
function isHers(effect: JournalLine["effect"], records: readonly FilingRecord[]): boolean {
  return !("recordId" in effect) || records.some(({ id }) => id === effect.recordId);
}

function recordsNamed(journal: readonly JournalLine[]) {
  return journal.flatMap(({ effect }) => ("recordId" in effect ? [effect.recordId] : []));
}

/** A conversation of a tray as a row; null when the tray has none of this id. */
export function openConversationRow(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<SheetRow | null> {
  return conversationRow(deps.db, grant, id);
}

/** Counts a conversation of a tray as read by a member. */
export async function markSeen(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<void> {
  const row = await conversationRow(deps.db, grant, id);
  if (row?.unread === true) await markRead(deps.db, grant.memberId, id, deps.now());
}

/** Marks conversations of a tray as unread for a member. */
export function markUnread(deps: Deps, grant: TrayGrant, ids: readonly ConversationId[]): Promise<void> {
  return markUnreadFrom(deps.db, grant, ids, null);
}

/** Marks a conversation as unread from one of its messages on. */
export async function markUnreadFromMessage(deps: Deps, grant: TrayGrant, messageId: MessageId): Promise<boolean> {
  const message = await messagePlace(deps.db, grant, messageId);
  if (message === null) return false;
  await markUnreadFrom(deps.db, grant, [message.conversationId], message.receivedAt);
  return true;
}

/** Marks as read for a member what came up to a moment. */
export function markAllRead(deps: Deps, memberId: MemberId, upTo: Instant): Promise<void> {
  return markReadUpTo(deps.db, memberId, upTo);
}
