import { answerFields, filledText } from "../../core/automatic-answers/answer-letter";
import {
  type AnswerText,
  type AutomaticAnswer,
  absentMember,
  answersOfRule,
  isInForce,
} from "../../core/automatic-answers/automatic-answer";
import { type AnswerCircumstances, chooseAnswer } from "../../core/automatic-answers/choose-answer";
import { type AnswerableMessage, answerRecipient } from "../../core/automatic-answers/may-be-answered";
import { inCharge, type TimeOff, timeOffAt } from "../../core/cover/covering";
import { type Docket, deriveDocket } from "../../core/docket/derive-docket";
import { type EmailAddress, type Mailbox, readEmailAddress } from "../../core/kernel/email-address";
import { type BatchId, type MemberId, type RuleId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { headerValue, type MailMessage } from "../../core/message/mail-message";
import { examineCondition } from "../../core/rules/examine-condition";
import { needsOf } from "../../core/rules/needs";
import type { Rule } from "../../core/rules/rule";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { isOpenAt } from "../../core/worktime/working-hours";
import { htmlOfText } from "../../core/writing/html-of-text";
import { hoursOfTray, mailAddressesOf, membersOfTray, type Tray } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import {
  factsOf,
  type HeldConversation,
  lockConversations,
  type MessagePlace,
  type NewMessage,
} from "../../storage/facts/index";
import { answersSentTo, areOfAnswers, lockAnswersTo, newestOwnerWith, noteAnswerSent } from "../../storage/rules/index";
import { answersTexts } from "../../texts/en/answers";
import { saidOf } from "../../texts/said";
import type { Asking, Within } from "../base/deps";
import { factOf } from "../base/message-fact";
import { cachedAnswers, cachedTimesOff, isJunkSender, ownAddresses } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import { type ConversationInHand, carryOut } from "../changes/change-conversations";
import { type ArrivingMessage, arrived, testedWithAll } from "../rules/rule-facts";
import { saveLetter, storedLetter } from "../sending/letters";
import { type FilledByItself, fillByItself } from "../templates/fill-by-itself";

const said = saidOf(answersTexts);

/** Longer than any pace; what went before is forgotten. */
export const REMEMBERED = 366 * DAY;

/** The automatic answers that could go to a message now, whatever it says: those of rules that are for it, and then the tray's. */
export async function answersFor(
  deps: Asking,
  tray: Tray,
  { message, imported, isHistory }: Pick<ArrivingMessage, "message" | "imported" | "isHistory">,
  rules: readonly Rule[],
): Promise<readonly AutomaticAnswer[]> {
  if (imported || isHistory || message.classification.kind !== "person") return [];
  const own = (await cachedAnswers(deps, tray.id)).filter((answer) => isInForce(answer, deps.now()));
  return [...rules.flatMap(answersOfRule), ...own];
}

/** A message that is stored in its conversation, whose rules have acted. */
export type StoredArrival = {
  readonly stored: NewMessage;
  readonly place: MessagePlace;
  readonly createdAt: Instant;
  /** The rules that are for it. */
  readonly rules: readonly Rule[];
};

/** Answers a message that came, where one of the answers is for it: within the transaction that stores it, so once. */
export async function answerByItself(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  arrival: ArrivingMessage,
  { stored, place, createdAt, rules }: StoredArrival,
): Promise<void> {
  const within = { ...deps, db: trx };
  const answers = stored.direction === "in" ? await answersFor(within, tray, arrival, rules) : [];
  if (answers.length === 0) return;
  const recipient = await recipientOf(within, tray, arrival);
  if (recipient === null) return;
  const [conversation] = await lockConversations(trx, tray.id, [place.conversationId]);
  if (conversation === undefined) throw new Error(`conversation ${place.conversationId} went away under its message`);
  const facts = (await factsOf(trx, [conversation.id])).get(conversation.id) ?? NOTHING_HAPPENED;
  const docket = deriveDocket(facts);
  if (await isUnwanted(within, tray, stored, docket)) return;
  const isVerified = stored.trust?.verdict === "verified";
  const known = arrived(arrival, { starts: place.start !== null, docket, createdAt, isVerified });
  const conditions = answers.flatMap(({ texts }) => texts.map(({ condition }) => condition));
  const [tested] = await testedWithAll(within, tray, needsOf(conditions), [known]);
  if (tested === undefined) return;
  const owners = await ownersOf(within, tray, recipient, place, docket);
  await lockAnswersTo(trx, tray.id, recipient);
  const sent = await answersSentTo(trx, tray.id, recipient, later(deps.now(), -REMEMBERED));
  const chosen = chooseAnswer(
    answers,
    await circumstancesOf(within, tray, owners),
    ({ condition }) => examineCondition(condition, tested).holds,
    sent,
  );
  if (chosen?.kind === "send")
    await send(trx, deps, tray, { ...chosen, recipient, stored, place, conversation, facts });
}

type Sending = {
  readonly answer: AutomaticAnswer;
  readonly text: AnswerText;
  readonly recipient: EmailAddress;
  readonly stored: NewMessage;
  readonly place: MessagePlace;
  readonly conversation: HeldConversation;
  readonly facts: ConversationFacts;
};

async function send(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  { answer, text, recipient, stored, place, conversation, facts }: Sending,
): Promise<void> {
  const { headers, to, ...fields } = answerFields(recipient, {
    ...stored,
    fromName: stored.from.name,
    fromAddress: stored.from.address,
  });
  const asking = { ...deps, db: trx };
  const cover = await coverOf(asking, tray, answer, deriveDocket(facts));
  const filled =
    text.templateId === undefined
      ? { html: htmlOfText(filledText(text.text, cover.blanks)) }
      : await fillByItself(asking, tray, text.templateId, {
          to,
          theyWroteAt: stored.receivedAt,
          docket: deriveDocket(facts),
        });
  if (filled === null) return;
  if ("unfilled" in filled) return noteUnfilled(trx, deps, answer, filled, { conversation, known: facts });
  const letter = {
    ...fields,
    to: [to],
    cc: text.copiesCover && cover.mailbox !== null ? [cover.mailbox] : [],
    html: filled.html,
    carries: null,
    enclosed: [],
    recordCodes: [],
  };
  const why = said("answers.sentBy", { name: answer.name });
  const ours = await storedLetter(deps, { tray, memberId: null, why }, letter, { headers });
  const version = conversation.version + 1;
  const after = { ...facts, messages: [...facts.messages, factOf(ours, version)] };
  const at = { conversationId: conversation.id, start: null, version, who: null, facts: after };
  await saveLetter(trx, deps, ours, at, place.newestText);
  await noteAnswerSent(trx, tray.id, recipient, { answerId: answer.id, at: deps.now() }, ours.id);
}

// Nothing goes with a blank in it: that it did not is said where somebody can answer, once.
async function noteUnfilled(
  trx: Transaction,
  deps: Within,
  { id, name }: Pick<AutomaticAnswer, "id" | "name">,
  filled: Extract<FilledByItself, { readonly unfilled: unknown }>,
  inHand: ConversationInHand,
): Promise<void> {
  const blanks = { all: filled.unfilled, by: "and" } as const;
  const text = writtenDown(said("answers.notAnsweredByRule", { rule: name, template: filled.name, blanks }));
  const isNoted = inHand.known.entries.some(({ effect }) => effect.kind === "noted" && effect.text === text);
  if (isNoted) return;
  const rule = { id: trustedId<RuleId>(id), name, why: "" };
  const effects = [{ kind: "noted", text }] as const;
  await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), [{ ...inHand, effects, rule }]);
}

// What is thrown away, or only seems to be from somebody, would tell whoever sends such mail that it is read.
async function isUnwanted(
  deps: Asking,
  tray: Tray,
  { trust, from }: NewMessage,
  { standing }: Docket,
): Promise<boolean> {
  if (standing.kind === "junk" || standing.kind === "bin" || trust?.verdict === "imitation") return true;
  return isJunkSender(deps, tray.id, from.address);
}

// As far as automatic answering looks at it, but for what it answers.
function answerableMessage(
  { addressFields, classification, headers }: Pick<MailMessage, "addressFields" | "classification" | "headers">,
  envelope: { readonly sender: string } | null,
): Omit<AnswerableMessage, "answersAutomatic"> {
  const named = ["to", "cc", "bcc", "resent-to", "resent-cc", "resent-bcc"];
  const path = headerValue(headers, "return-path")?.trim().replace(/^<|>$/g, "") ?? null;
  return {
    kind: classification.kind,
    returnPath: envelope === null ? path : envelope.sender,
    recipients: named.flatMap((name) => addressFields.get(name) ?? []).flatMap((text) => readEmailAddress(text) ?? []),
  };
}

async function recipientOf(
  deps: Asking,
  tray: Tray,
  { message, recipients, envelopeSender }: ArrivingMessage,
): Promise<EmailAddress | null> {
  const answerable = answerableMessage(message, recipients.length === 0 ? null : { sender: envelopeSender });
  const ours = await ownAddresses(deps);
  const found = answerRecipient({ ...answerable, answersAutomatic: false }, ours, tray.addresses);
  if ("not" in found) return null;
  const answers = [...message.inReplyTo, ...message.references.slice(-1)];
  return (await areOfAnswers(deps.db, tray.id, answers)) ? null : found.to;
}

// Whose it is, and whose the matters of this person were before, where nobody has this one yet.
async function ownersOf(
  deps: Asking,
  tray: Tray,
  recipient: EmailAddress,
  { docket: came, start, conversationId }: MessagePlace,
  { ownerId }: Docket,
): Promise<ReadonlySet<MemberId>> {
  const before = start === null ? null : await newestOwnerWith(deps.db, tray.id, recipient, conversationId);
  return new Set([came.ownerId, ownerId, before].filter((id) => id !== null));
}

async function circumstancesOf(deps: Asking, tray: Tray, owners: ReadonlySet<MemberId>): Promise<AnswerCircumstances> {
  const now = deps.now();
  const timesOff = await cachedTimesOff(deps);
  return {
    now,
    isOpen: isOpenAt(now, await hoursOfTray(deps.db, tray)),
    isAway: (id) => timeOffAt(id, now, timesOff) !== null,
    isTheirs: (id) => owners.has(id),
  };
}

type Cover = {
  /** Where whoever covers is reached from outside; null where nobody does, or has no address. */
  readonly mailbox: Mailbox | null;
  readonly blanks: Parameters<typeof filledText>[1];
};

async function coverOf(
  deps: Asking,
  tray: Tray,
  answer: AutomaticAnswer,
  { recordIds }: Pick<Docket, "recordIds">,
): Promise<Cover> {
  const now = deps.now();
  const timesOff: readonly TimeOff[] = await cachedTimesOff(deps);
  const member = absentMember(answer);
  const off = member === null ? null : timeOffAt(member, now, timesOff);
  const covering = member === null ? null : inCharge(member, { trayId: tray.id, recordIds }, now, timesOff);
  const members = await membersOfTray(deps.db, tray.id);
  const nameOf = (id: MemberId | null) => members.find((one) => one.id === id)?.name ?? tray.name;
  const addresses = covering === null ? new Map<MemberId, EmailAddress>() : await mailAddressesOf(deps.db, [covering]);
  const address = covering === null ? undefined : addresses.get(covering);
  return {
    mailbox: address === undefined ? null : { name: nameOf(covering), address },
    blanks: {
      back: dayOf(off?.until ?? answer.until, tray),
      colleague: nameOf(member),
      cover: nameOf(covering),
    },
  };
}

function dayOf(at: Instant | null, tray: Tray): string {
  return writtenDown(at === null ? said("answers.soon") : { at, zone: tray.timeZone, form: "day-in-full" });
}
