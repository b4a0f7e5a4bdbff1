import { domainOf, type EmailAddress } from "../kernel/email-address";
import { hasWords, plainWords } from "../kernel/plain-words";
import { namesNothing, type Rule, type RuleConditions } from "./rule";

/** A message as far as rules go. */
export type RuledMessage = {
  readonly from: EmailAddress | null;
  /** Everybody in To and Cc. */
  readonly to: readonly EmailAddress[];
  readonly subject: string;
  readonly ownText: string;
  /** The id within List-Id (RFC 2919), in lower case; null when it came through no list. */
  readonly list: string | null;
  readonly hasAttachment: boolean;
};

/** Why a rule is for a message, in words ("from @dombach.example, “invoice” in the subject"); null when it is not. */
export function whyRuleHolds(
  { conditions, exceptions }: Pick<Rule, "conditions" | "exceptions">,
  message: RuledMessage,
): string | null {
  const why = whyAll(conditions, message);
  return why !== null && whyAll(exceptions, message) === null ? why : null;
}

function whyAll(conditions: RuleConditions, message: RuledMessage): string | null {
  if (namesNothing(conditions)) return null;
  const found = PARTS.map((part) => part(conditions, message));
  if (found.includes(null)) return null;
  return found.filter((words) => words !== "").join(", ");
}

// What a part found, in words; empty when it asks for nothing, null when it does not hold.
type Part = (conditions: RuleConditions, message: RuledMessage) => string | null;

const PARTS: readonly Part[] = [
  ({ from }, message) => found(from, (one) => message.from !== null && isAddressed(message.from, one), "from"),
  ({ to }, message) => found(to, (one) => message.to.some((address) => isAddressed(address, one)), "to"),
  ({ subject }, message) => words(subject, message.subject, "in the subject"),
  ({ text }, message) => words(text, message.ownText, "in the text"),
  ({ list }, message) => found(list, (one) => message.list === one, "through the list"),
  ({ hasAttachment }, message) => {
    if (hasAttachment === null) return "";
    if (hasAttachment !== message.hasAttachment) return null;
    return hasAttachment ? "with an attachment" : "without an attachment";
  },
];

function found(values: readonly string[], holds: (value: string) => boolean, before: string): string | null {
  if (values.length === 0) return "";
  const one = values.find(holds);
  return one === undefined ? null : `${before} ${one}`;
}

function words(values: readonly string[], text: string, where: string): string | null {
  if (values.length === 0) return "";
  const plain = plainWords(text);
  const one = values.find((value) => hasWords(plain, value));
  return one === undefined ? null : `“${one}” ${where}`;
}

function isAddressed(address: EmailAddress, value: string): boolean {
  return value.startsWith("@") ? `@${domainOf(address)}` === value : address === value;
}
