import { timeOffAt } from "../../core/cover/covering";
import type { Docket } from "../../core/docket/derive-docket";
import { domainOf, type EmailAddress } from "../../core/kernel/email-address";
import type { MemberId, RecordId } from "../../core/kernel/ids";
import { HOUR, type Instant, instant } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { listIdIn } from "../../core/message/ways-to-leave";
import type { Need } from "../../core/rules/needs";
import type { Correspondent, RuledConversation, RuledMessage } from "../../core/rules/ruled-message";
import { addressesAt, type TestedMessage, testedMessage } from "../../core/rules/test-message";
import { recordCodesIn } from "../../core/threading/record-codes";
import { isOpenAt, type WorkingHours, workingTimeBetween } from "../../core/worktime/working-hours";
import { textOfHtml } from "../../mail/index";
import { hoursOfTray, type Tray } from "../../storage/access/index";
import { recordsByCodes } from "../../storage/records/index";
import { correspondentsOf } from "../../storage/rules/index";
import type { Asking } from "../base/deps";
import { cachedTimesOff } from "../base/routing-cache";

/** A message on its way into a tray, as far as rules go. */
export type ArrivingMessage = {
  readonly message: MailMessage;
  readonly raw: Uint8Array;
  readonly receivedAt: Instant;
  readonly imported: boolean;
  readonly isHistory: boolean;
  readonly recipients: readonly EmailAddress[];
  readonly envelopeSender: string;
};

/** A message with what rules ask of it, but for what has to be looked up. */
export type KnownMessage = Omit<RuledMessage, "ours" | "arrived" | "references" | "correspondents" | "conversation"> & {
  readonly receivedAt: Instant;
  /** The conversation that it is in; null where it is in none yet. */
  readonly conversation: KnownConversation | null;
};

type KnownConversation = Omit<RuledConversation, "isOwnerAway" | "age" | "standingFor" | "dueIn"> & {
  readonly createdAt: Instant;
  readonly standingSince: Instant;
  readonly dueAt: Instant | null;
};

/** What is known of a message that arrives. Where it goes and from whom it really is comes to be known after. */
export function arriving(arrival: ArrivingMessage): KnownMessage {
  const { message, raw, recipients, envelopeSender, receivedAt } = arrival;
  return {
    from: message.from?.address ?? null,
    to: message.to.map(({ address }) => address),
    cc: message.cc.map(({ address }) => address),
    envelope: { from: recipients.length === 0 ? null : envelopeSender, to: recipients },
    subject: message.subject,
    ownText: message.ownText,
    restText: message.restText,
    otherTexts: otherTextsOf(message),
    kind: message.classification.kind,
    list: message.list === null ? null : listIdIn(message.list),
    attachments: message.attachments.filter(({ inline }) => !inline),
    size: raw.byteLength,
    headers: message.headers,
    addressFields: message.addressFields,
    isVerified: false,
    templateId: null,
    isFirst: true,
    receivedAt,
    conversation: null,
  };
}

/** Where a message came to be: whether its conversation began with it, and what is so there now. */
export type ArrivedIn = {
  readonly starts: boolean;
  readonly docket: Docket;
  readonly createdAt: Instant;
  readonly isVerified: boolean;
};

/** A message that arrived, now that it is known where it went and from whom it really is. */
export function arrived(arrival: ArrivingMessage, { starts, docket, createdAt, isVerified }: ArrivedIn): KnownMessage {
  const { standing, ownerId, categoryIds, recordIds, urgency } = docket;
  const dates = [docket.expectedAt, docket.followUpAt, docket.expiresAt].filter((at) => at !== null);
  const conversation = {
    standing: standing.kind,
    standingSince: standing.since,
    createdAt,
    dueAt: dates.length === 0 ? null : instant(Math.min(...dates)),
    ownerId,
    categoryIds,
    recordIds,
    urgency,
  };
  return { ...arriving(arrival), isVerified, isFirst: starts, conversation };
}

/** The texts of a message that stand neither in its own nor in its rest; made once, when they are asked for. */
export function otherTextsOf({ otherTexts, html }: Pick<MailMessage, "otherTexts" | "html">): () => readonly string[] {
  let made: readonly string[] | null = null;
  return () => {
    made ??= html === null ? otherTexts : [...otherTexts, textOfHtml(html)];
    return made;
  };
}

/** A message ready for the tests that need nothing to be looked up. */
export function testedAlone(tray: Tray, { receivedAt: at, ...message }: KnownMessage): TestedMessage {
  return testedMessage({
    ...message,
    ours: tray.addresses,
    arrived: { at, zone: tray.timeZone, isOpen: true },
    references: [],
    correspondents: new Map(),
    conversation: null,
  });
}

/** Messages ready for all tests: of what is looked up, what these needs name, for all of them at once. */
export async function testedWithAll(
  deps: Asking,
  tray: Tray,
  needs: ReadonlySet<Need>,
  messages: readonly KnownMessage[],
): Promise<TestedMessage[]> {
  const correspondents = needs.has("correspondents") ? await correspondentsIn(deps, tray, messages) : new Map();
  const references = needs.has("records") ? await recordsByCode(deps, messages) : new Map<string, RecordId>();
  const hours = needs.has("hours") || needs.has("conversation") ? await hoursOfTray(deps.db, tray) : null;
  const away = needs.has("conversation") ? await whoIsAway(deps) : () => false;
  return messages.map(({ receivedAt: at, conversation, ...message }) =>
    testedMessage({
      ...message,
      ours: tray.addresses,
      arrived: { at, zone: tray.timeZone, isOpen: hours === null || isOpenAt(at, hours) },
      references: codesOf(message).flatMap((code) => references.get(code) ?? []),
      correspondents,
      conversation:
        conversation === null || hours === null ? null : ruledConversation(conversation, deps.now(), hours, away),
    }),
  );
}

const codesOf = ({ subject, ownText }: Pick<RuledMessage, "subject" | "ownText">) =>
  recordCodesIn(`${subject} ${ownText}`);

async function correspondentsIn(
  deps: Asking,
  tray: Tray,
  messages: readonly KnownMessage[],
): Promise<ReadonlyMap<EmailAddress, Correspondent>> {
  const addresses = [...new Set(messages.flatMap((message) => addressesAt(message, "any")))];
  const ownDomains = new Set(tray.addresses.map(domainOf));
  const known = await correspondentsOf(deps.db, tray.id, addresses);
  return new Map(
    [...known].map(([address, one]) => [address, { ...one, isColleague: ownDomains.has(domainOf(address)) }]),
  );
}

async function recordsByCode(deps: Asking, messages: readonly KnownMessage[]): Promise<ReadonlyMap<string, RecordId>> {
  const codes = [...new Set(messages.flatMap(codesOf))];
  const records = await recordsByCodes(deps.db, null, codes);
  return new Map(records.map(({ code, id }) => [code, id]));
}

async function whoIsAway(deps: Asking): Promise<(id: MemberId) => boolean> {
  const timesOff = await cachedTimesOff(deps);
  const now = deps.now();
  return (id) => timeOffAt(id, now, timesOff) !== null;
}

function ruledConversation(
  { createdAt, standingSince, dueAt, ...conversation }: KnownConversation,
  now: Instant,
  hours: WorkingHours,
  isAway: (id: MemberId) => boolean,
): RuledConversation {
  const since = (at: Instant) => workingTimeBetween(at, now, hours) / HOUR;
  const { ownerId } = conversation;
  const isOwnerAway = ownerId !== null && isAway(ownerId);
  const dueIn = dueAt === null ? null : workingTimeBetween(now, dueAt, hours) / HOUR;
  return { ...conversation, isOwnerAway, age: since(createdAt), standingFor: since(standingSince), dueIn };
}
