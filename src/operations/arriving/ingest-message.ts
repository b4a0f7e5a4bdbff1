import { deriveDocket } from "../../core/docket/derive-docket";
import { type BatchId, type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later, SECOND } from "../../core/kernel/instant";
import { returnDateIn } from "../../core/message/return-date";
import type { RuleThatHolds } from "../../core/rules/examine-condition";
import type { Rule } from "../../core/rules/rule";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { wordsToShow } from "../../core/text/new-text";
import { baseSubject } from "../../core/threading/base-subject";
import { correspondentOf, SUBJECT_WITHIN } from "../../core/threading/place-all";
import { placeMessage, threadIds } from "../../core/threading/place-message";
import { recordCodesIn } from "../../core/threading/record-codes";
import { hoursOfTray, type Tray } from "../../storage/access/index";
import type { Database, Transaction } from "../../storage/base/index";
import { conversationRowOf } from "../../storage/conversation/index";
import {
  conversationOfSubject,
  copyOf,
  type KnownThreads,
  lockThreads,
  type MessagePlace,
  type NewMessage,
  newestOfOurs,
  noteJoined,
  noteReports,
  noteStored,
  type ReportedMessage,
  reportedMessage,
  saveRoutes,
  storeIfUnknown,
} from "../../storage/facts/index";
import { answerByItself, answersFor } from "../automatic-answers/answer-by-itself";
import { sendOn } from "../automatic-answers/send-on";
import type { Deps, Within } from "../base/deps";
import { dedupeKeyOf, factOf } from "../base/message-fact";
import type { ConversationInHand } from "../changes/change-conversations";
import { notifyOfMessage } from "../changes/notify";
import { joinPiece } from "../deciding/join-conversations";
import { applyRules, candidateRules, lockCandidateRules, rulesFor } from "../rules/apply-rules";
import type { ArrivedIn } from "../rules/rule-facts";
import { askBeforeLetters } from "../sending/ask-before-letters";
import { assessSender } from "./assess-sender";
import { type ThreadInHand, type ThreadsInHand, threadsInHand } from "./threads-in-hand";
import { type Incoming, routesOf, toNewMessage, whoFor } from "./to-new-message";

export type { Incoming } from "./to-new-message";

/** What became of a message in one tray. */
export type Kept = {
  readonly trayId: Tray["id"];
  readonly conversationId: ConversationId;
  readonly outcome: "started" | "joined" | "known-already";
};

/** Most mail answers nothing: it is stored in one round trip, and looked up only when the tray turns out to know its id. Null when it has to be placed. */
export async function startAtOnce(deps: Deps, tray: Tray, incoming: Incoming): Promise<Kept | null> {
  const { message } = incoming;
  const refersTo = [...message.inReplyTo, ...message.references, ...message.reportedIds];
  if (refersTo.length > 0 || message.reports.length > 0 || baseSubject(message.subject).isReply) return null;
  const candidates = await candidateRules(deps, tray, incoming);
  const conversationId = trustedId<ConversationId>(deps.newId());
  const { stored, place } = placed(
    deps,
    tray,
    incoming,
    conversationId,
    null,
    await circumstances(deps.db, deps, tray, incoming, null),
  );
  if ((await answersFor(deps, tray, incoming, [])).length > 0) return null;
  // Somebody has to hold it while its rules act.
  if ((await rulesFor(deps, tray, incoming, candidates, arrivedIn(stored, place, null))).length > 0) return null;
  const isNew = await storeIfUnknown(deps.db, stored, place);
  // Nobody owns it yet, so that it concerns only those who watch for such a message.
  if (isNew) await notifyOfArrival(deps.db, deps, incoming, stored, place);
  return isNew ? { trayId: tray.id, conversationId, outcome: "started" } : null;
}

/** Places a message in a tray and stores it, within the caller's transaction. */
export async function ingestMessage(trx: Transaction, deps: Within, tray: Tray, incoming: Incoming): Promise<Kept> {
  const [kept] = await ingestMessages(trx, deps, tray, [incoming]);
  if (kept === undefined) throw new Error("a message was neither kept nor known");
  return kept;
}

/** The same for several, one after the other: what the tray knows of them is looked up once, and they are stored together. */
export async function ingestMessages(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  batch: readonly Incoming[],
): Promise<Kept[]> {
  const ids = [...new Set(batch.flatMap(linksOf))];
  const keys = batch.map(({ message, raw }) => dedupeKeyOf(message, raw));
  const rules = await lockCandidateRules(trx, deps, tray, batch);
  const known = await lockThreads(trx, tray.id, ids, keys);
  const threads = threadsInHand(trx, tray);
  const joined = batch.flatMap(({ message }, at) => {
    const isCopy = copyOf(known, keys[at] ?? new Uint8Array()) !== null;
    const placement = placeMessage(message, known.conversations);
    return isCopy || placement.kind !== "joins" ? [] : [placement.conversation];
  });
  await threads.take([...new Set(joined)]);
  const all: Kept[] = [];
  for (const [at, incoming] of batch.entries()) {
    all.push(await ingestOne(trx, deps, tray, incoming, { known, threads, rules: rules[at] ?? [] }));
  }
  await threads.put();
  return all;
}

/** What the tray knows of a batch, and the rules that may be for a message of it. */
type Around = {
  readonly known: KnownThreads;
  readonly threads: ThreadsInHand;
  readonly rules: readonly Rule[];
};

async function ingestOne(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  incoming: Incoming,
  { known, threads, rules }: Around,
): Promise<Kept> {
  const { message, raw } = incoming;
  const dedupeKey = dedupeKeyOf(message, raw);
  const copyIn = copyOf(known, dedupeKey);
  if (copyIn !== null) {
    await saveRoutes(trx, tray.id, dedupeKey, routesOf(tray, incoming), message.list, incoming.receivedAt);
    return { trayId: tray.id, conversationId: copyIn, outcome: "known-already" };
  }
  const placement = placeMessage(message, known.conversations);
  const reported = await reportedBy(trx, tray, incoming, threads);
  const joins =
    reported?.conversationId ??
    (placement.kind === "joins" ? placement.conversation : await homeBySubject(trx, tray, incoming, threads));
  const conversationId = joins ?? trustedId<ConversationId>(deps.newId());
  const thread = joins === null ? null : await threads.thread(conversationId);
  const { stored, place } = placed(
    deps,
    tray,
    incoming,
    conversationId,
    thread,
    await circumstances(trx, deps, tray, incoming, thread),
    await answeredAt(trx, tray, incoming, thread, threads),
  );
  threads.place({ message: stored, place });
  noteStored(known, linksOf(incoming), dedupeKey, conversationId);
  // Rules are about what comes to us.
  const candidates = stored.direction === "in" ? rules : [];
  const where = arrivedIn(stored, place, thread);
  const due = await rulesFor({ ...deps, db: trx }, tray, incoming, candidates, where);
  const piece = placement.kind === "joins" && placement.piece !== conversationId ? placement.piece : null;
  // What follows asks the database, or changes there what is in hand.
  if (due.length > 0 || !incoming.imported || reported !== null || piece !== null) {
    await threads.put();
    const { facts, version } = await threads.thread(conversationId);
    const inHand = { conversation: { id: conversationId, trayId: tray.id, version }, known: facts };
    await actOnArrival(trx, deps, tray, incoming, { inHand, stored, place, due, createdAt: where.createdAt });
    if (reported !== null) await noteReports(trx, reported.messageId, message.reports, incoming.receivedAt);
    if (piece !== null) {
      await joinLatePiece(trx, deps, tray, conversationId, piece);
      noteJoined(known, piece, conversationId);
      threads.letGo(piece);
    }
    threads.letGo(conversationId);
  }
  return { trayId: tray.id, conversationId, outcome: joins === null ? "started" : "joined" };
}

/** A message as it came to be in a conversation, with the rules that are for it. */
type Arrived = {
  readonly inHand: ConversationInHand;
  readonly stored: NewMessage;
  readonly place: MessagePlace;
  readonly due: readonly RuleThatHolds[];
  /** When its conversation began. */
  readonly createdAt: Instant;
};

async function actOnArrival(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  incoming: Incoming,
  { inHand, stored, place, due, createdAt }: Arrived,
): Promise<void> {
  const isHeld = await applyRules(trx, deps, tray, inHand, { moment: "arrival", starts: place.start !== null }, due);
  // What is held back disturbs nobody.
  if (!isHeld) await notifyOfArrival(trx, deps, incoming, stored, place);
  if (place.start === null && !incoming.imported) await askBeforeLetters(trx, deps, inHand);
  const rules = due.map(({ rule }) => rule);
  await answerByItself(trx, deps, tray, incoming, { stored, place, createdAt, rules });
  await sendOn(trx, deps, tray, incoming, { stored, place, rules });
}

function arrivedIn(
  { trust, receivedAt }: NewMessage,
  { docket }: MessagePlace,
  thread: ThreadInHand | null,
): ArrivedIn {
  const [first] = thread?.facts.messages ?? [];
  const isVerified = trust?.verdict === "verified";
  return { starts: thread === null, docket, createdAt: first?.arrivedAt ?? receivedAt, isVerified };
}

// What is brought over from elsewhere is no news.
async function notifyOfArrival(
  db: Database,
  deps: Within,
  { imported }: Incoming,
  message: NewMessage,
  { conversationId, docket }: MessagePlace,
): Promise<void> {
  if (!imported) await notifyOfMessage(db, deps, { trayId: message.trayId, conversationId, message, docket });
}

function linksOf({ message }: Incoming): string[] {
  return [...new Set([...message.reportedIds, ...threadIds(message)])];
}

// Mail systems report within days; what went to the same person long ago is not what they mean.
const REPORTED_WITHIN = 10 * DAY;

async function reportedBy(
  trx: Transaction,
  tray: Tray,
  { message, receivedAt }: Incoming,
  threads: ThreadsInHand,
): Promise<ReportedMessage | null> {
  if (message.reports.length === 0 && message.reportedIds.length === 0) return null;
  await threads.put();
  const ids = [...message.reportedIds, ...message.inReplyTo, ...message.references];
  const recipients = message.reports.map(({ address }) => address);
  return reportedMessage(trx, tray.id, ids, recipients, later(receivedAt, -REPORTED_WITHIN));
}

async function homeBySubject(
  trx: Transaction,
  tray: Tray,
  { message, receivedAt, imported }: Incoming,
  threads: ThreadsInHand,
): Promise<ConversationId | null> {
  const { base, isReply } = baseSubject(message.subject);
  const names = message.inReplyTo.length + message.references.length;
  const recipients = [...message.to, ...message.cc].map(({ address }) => address);
  const correspondent = correspondentOf({ from: message.from?.address ?? null, recipients }, tray.addresses);
  if (!isReply || names > 0 || correspondent === null || message.classification.kind === "list") return null;
  const subject = { base, recordCodes: recordCodesIn(message.subject) };
  // History is imported long after it was written, and joins what was written then.
  const written = imported ? (message.date ?? receivedAt) : receivedAt;
  const within = { since: later(written, -SUBJECT_WITHIN), until: later(written, SUBJECT_WITHIN) };
  await threads.put();
  return conversationOfSubject(trx, tray.id, subject, correspondent, within);
}

/** What the rest of the tray says about a message: who seems to have sent it, and whether she is new where it goes. */
type Circumstances = Pick<NewMessage, "trust" | "isNewParticipant"> & {
  readonly returnsAt: Instant | null;
  /** Whether one of us wrote it: with an address of the tray, brought over from our own mail or proved to come from us. */
  readonly isOurs: boolean;
};

async function circumstances(
  db: Database,
  deps: Within,
  tray: Tray,
  incoming: Incoming,
  thread: ThreadInHand | null,
): Promise<Circumstances> {
  const { from, classification } = incoming.message;
  const saysOurs = from !== null && tray.addresses.includes(from.address);
  const ours = { isOurs: true, isNewParticipant: false, returnsAt: null };
  if (saysOurs && incoming.imported) return { ...ours, trust: null };
  const trust = await assessSender(db, deps, tray, incoming);
  // Anybody can write our address into a letter: it is an answer of ours only where that is proved.
  if (saysOurs && trust.verdict === "verified") return { ...ours, trust };
  const isPerson = classification.kind === "person" && from !== null;
  const isNewParticipant = thread !== null && isPerson && !thread.people.has(from.address);
  return { trust, isNewParticipant, returnsAt: await returnOf(db, tray, incoming), isOurs: false };
}

async function returnOf(db: Database, tray: Tray, { message, receivedAt }: Incoming): Promise<Instant | null> {
  if (message.classification.kind !== "automatic") return null;
  const text = `${message.subject}\n\n${message.ownText}`;
  return returnDateIn(text, message.date ?? receivedAt, await hoursOfTray(db, tray));
}

async function joinLatePiece(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  target: ConversationId,
  source: ConversationId,
): Promise<void> {
  const subject = (await conversationRowOf(trx, tray.id, source))?.subject ?? "";
  const batchId = trustedId<BatchId>(deps.newId());
  await joinPiece(trx, deps, tray, { target, source, subject, by: null, batchId });
}

// Clocks run slow: what answers a message of ours was not written before it. Null where it seems to be later anyway.
async function answeredAt(
  trx: Transaction,
  tray: Tray,
  { message, receivedAt }: Incoming,
  thread: ThreadInHand | null,
  threads: ThreadsInHand,
): Promise<Instant | null> {
  const written = message.date ?? receivedAt;
  const isEarly = thread?.facts.messages.some(({ direction, at }) => direction === "out" && at >= written) ?? false;
  if (!isEarly) return null;
  await threads.put();
  return newestOfOurs(trx, tray.id, [...message.inReplyTo, ...message.references]);
}

/** A message as it is stored in a conversation: one that is held, or a new one (null). */
function placed(
  deps: Within,
  tray: Tray,
  incoming: Incoming,
  conversationId: ConversationId,
  thread: ThreadInHand | null,
  { isOurs, ...around }: Circumstances,
  answers: Instant | null = null,
): { stored: NewMessage; place: MessagePlace } {
  const { message } = incoming;
  const id = trustedId<MessageId>(deps.newId());
  const form = toNewMessage(tray, incoming, id, { links: linksOf(incoming), isOurs });
  const sentAt = answers !== null && answers >= form.sentAt ? later(answers, SECOND) : form.sentAt;
  const stored: NewMessage = { ...form, sentAt, ...around };
  const version = (thread?.version ?? 0) + 1;
  const facts = thread?.facts ?? NOTHING_HAPPENED;
  const start = {
    subject: message.subject,
    baseSubject: baseSubject(message.subject).base,
    createdAt: incoming.receivedAt,
  };
  const place = {
    conversationId,
    start: thread === null ? start : null,
    version,
    docket: deriveDocket({ ...facts, messages: [...facts.messages, factOf(stored, version)] }),
    who: whoFor(stored, thread === null, message),
    newestText: wordsToShow({ own: stored.ownText, rest: stored.restText }),
  };
  return { stored, place };
}
