import type { EmailAddress } from "../../core/kernel/email-address";
import { type Instant, instant } from "../../core/kernel/instant";
import { mailDate } from "../../core/message/mail-date";
import { headerValue, type MailMessage } from "../../core/message/mail-message";
import { foundInWords } from "../../core/rules/condition-in-words";
import { rulesThatHold } from "../../core/rules/examine-condition";
import { needsOf } from "../../core/rules/needs";
import { conditionsOf } from "../../core/rules/rule";
import { indexRules } from "../../core/rules/rule-index";
import { testedMessage } from "../../core/rules/test-message";
import type { WrittenRule } from "../../core/sieve/rules-of-script";
import { WRITTEN_NAMES } from "../../core/sieve/written-names";
import { parseMessage, readMailFiles } from "../../mail/index";
import { writtenDown } from "../base/written-down";
import { arriving } from "./rule-facts";
import { asJson } from "./written-rules";

/** What a tray would know, where rules are tried without one. */
export type TriedAs = {
  readonly ours: readonly EmailAddress[];
  /** IANA. */
  readonly timeZone: string;
  /** When all of it arrives; null for when it says that it did. */
  readonly now: Instant | null;
};

/** The rules that ask for what only a tray knows, by their names: of these nothing can be told without one. */
export function rulesOfATray(rules: readonly WrittenRule[]): string[] {
  const isOfTray = (need: string) => need !== "conversation";
  return rules.filter((rule) => [...needsOf(conditionsOf(rule))].some(isOfTray)).map(({ name }) => name);
}

/** What rules would do with each message of a file, and why, one object each in the order of the file. */
export async function* tryWrittenRules(rules: readonly WrittenRule[], path: string, as: TriedAs) {
  const index = indexRules(rules);
  for await (const raw of readMailFiles(path, { takesAll: true })) {
    const { message } = await parseMessage(raw);
    const at = as.now ?? arrivedAt(message);
    const { receivedAt, ...known } = arriving({ ...NEW_ARRIVAL, message, raw, receivedAt: at });
    const tested = testedMessage({
      ...known,
      ...NOT_KNOWN,
      envelope: envelopeOf(message),
      ours: as.ours,
      isFirst: message.inReplyTo.length + message.references.length === 0,
      arrived: { at: receivedAt, zone: as.timeZone, isOpen: true },
    });
    const holding = rulesThatHold(index.candidates(tested), tested);
    yield {
      messageId: message.messageId,
      rules: holding.map(({ rule }) => rule.name),
      effects: holding.flatMap(({ rule }) => rule.actions.map(asJson)),
      why: holding.map(({ rule, held }) => ({
        rule: rule.name,
        found: held.map(({ test, found }) => writtenDown(foundInWords(test, found, WRITTEN_NAMES))),
      })),
    };
  }
}

const NEW_ARRIVAL = { imported: false, isHistory: false, recipients: [], envelopeSender: "" } as const;
const NOT_KNOWN = { references: [], correspondents: new Map(), conversation: null, isVerified: false } as const;

// RFC 5321 4.4: the newest trace field stands first; of the envelope the last server leaves these fields.
function arrivedAt({ headers, date }: MailMessage): Instant {
  const trace = headerValue(headers, "received") ?? "";
  return mailDate(trace.slice(trace.lastIndexOf(";") + 1)) ?? date ?? instant(0);
}

function envelopeOf({ headers, addressFields }: MailMessage) {
  const from = headerValue(headers, "return-path");
  const to = addressFields.get("delivered-to") ?? addressFields.get("x-original-to") ?? [];
  return { from: from === null ? null : from.replace(/[<>\s]/g, ""), to };
}
