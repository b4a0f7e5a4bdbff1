import { officeTexts } from "../../texts/en/office";
import { type Listed, type Said, saidOf } from "../../texts/said";
import { domainOf, type EmailAddress } from "../kernel/email-address";
import { foldedWords, hasWords } from "../kernel/folded-words";
import { namesNothing, type Rule, type RuleConditions } from "./rule";

const said = saidOf(officeTexts);

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

/** Why a rule is for a message ("from @dombach.example, “invoice” in the subject"); null when it is not. */
export function whyRuleHolds(
  { conditions, exceptions }: Pick<Rule, "conditions" | "exceptions">,
  message: RuledMessage,
): Listed | null {
  const why = whyAll(conditions, message);
  return why !== null && whyAll(exceptions, message) === null ? why : null;
}

function whyAll(conditions: RuleConditions, message: RuledMessage): Listed | null {
  if (namesNothing(conditions)) return null;
  const found = PARTS.map((part) => part(conditions, message));
  const said = found.filter((one) => one !== null);
  return said.length < found.length ? null : { all: said.filter((one) => one !== ASKS_NOTHING), by: "comma" };
}

const ASKS_NOTHING = "";

// What a part found; null when it does not hold.
type Part = (conditions: RuleConditions, message: RuledMessage) => Said | typeof ASKS_NOTHING | null;

const PARTS: readonly Part[] = [
  ({ from }, message) =>
    found(
      from,
      (one) => message.from !== null && isAddressed(message.from, one),
      (address) => said("office.foundFrom", { address }),
    ),
  ({ to }, message) =>
    found(
      to,
      (one) => message.to.some((address) => isAddressed(address, one)),
      (address) => said("office.foundTo", { address }),
    ),
  ({ subject }, message) =>
    found(subject, isIn(message.subject), (words) => said("office.foundInTheSubject", { words })),
  ({ text }, message) => found(text, isIn(message.ownText), (words) => said("office.foundInTheText", { words })),
  ({ list }, message) =>
    found(
      list,
      (one) => message.list === one,
      (name) => said("office.foundThroughTheList", { name }),
    ),
  ({ hasAttachment }, message) => {
    if (hasAttachment === null) return ASKS_NOTHING;
    if (hasAttachment !== message.hasAttachment) return null;
    return hasAttachment ? said("office.withAnAttachment") : said("office.withoutAnAttachment");
  },
];

function found(
  values: readonly string[],
  holds: (value: string) => boolean,
  inWords: (value: string) => Said,
): Said | typeof ASKS_NOTHING | null {
  if (values.length === 0) return ASKS_NOTHING;
  const one = values.find(holds);
  return one === undefined ? null : inWords(one);
}

function isIn(text: string): (words: string) => boolean {
  const plain = foldedWords(text);
  return (words) => hasWords(plain, words);
}
function isAddressed(address: EmailAddress, value: string): boolean {
  return value.startsWith("@") ? `@${domainOf(address)}` === value : address === value;
}
