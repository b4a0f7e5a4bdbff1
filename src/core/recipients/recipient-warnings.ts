import { domainOf, type EmailAddress, type Mailbox } from "../kernel/email-address";
import { foldedWords } from "../kernel/folded-words";
import type { Instant } from "../kernel/instant";
import { halvesOf, type RecipientIndex } from "./complete-recipients";
import { typingDistance } from "./typing-distance";

/** A message that is to go, as far as it is checked to whom. */
export type LetterToCheck = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly bcc: readonly Mailbox[];
  /** Its own words, without what it quotes. */
  readonly text: string;
};

/** What is known of those whom it could go to. */
export type KnownOfRecipients = {
  readonly index: RecipientIndex;
  /** The addresses of the tray and its members. */
  readonly ours: ReadonlySet<EmailAddress>;
  /** Colleagues who are away, by their address. */
  readonly away: ReadonlyMap<EmailAddress, { readonly name: string; readonly until: Instant }>;
  /** Who was written to, or in copy, in the message that is answered; none of them ours. */
  readonly before: readonly Mailbox[];
  /** The records that the text names by their codes and that have nothing to do with the letter. */
  readonly foreignCodes: readonly string[];
};

/** Something worth knowing before a message goes. */
export type RecipientWarning =
  /** Never written to, and nearly the address of somebody who was, so many times. */
  | { readonly kind: "looks-like"; readonly address: EmailAddress; readonly like: EmailAddress; readonly times: number }
  | { readonly kind: "outside"; readonly address: EmailAddress }
  | { readonly kind: "away"; readonly name: string; readonly until: Instant }
  | { readonly kind: "many"; readonly count: number }
  | { readonly kind: "left-out"; readonly mailboxes: readonly Mailbox[] }
  | { readonly kind: "greets-another"; readonly name: string }
  | { readonly kind: "foreign-code"; readonly code: string };

/** From how many recipients in To on it is asked whether each may see the others. */
const MANY_RECIPIENTS = 40;
const NEARLY = 2;
// A longer list was not typed.
const MOST_COMPARED = 20;
// Shorter ones are near to many others.
const SHORTEST = 8;

/** What is worth knowing about the recipients of a message before it goes, the gravest first. */
export function recipientWarnings(letter: LetterToCheck, known: KnownOfRecipients): RecipientWarning[] {
  const everybody = [...letter.to, ...letter.cc, ...letter.bcc];
  return [
    ...everybody.slice(0, MOST_COMPARED).flatMap(({ address }) => lookalikeOf(address, known)),
    ...outsiderIn(everybody, known),
    ...known.foreignCodes.map((code) => ({ kind: "foreign-code", code }) as const),
    ...greetedAnother(letter, known),
    ...leftOut(everybody, known),
    ...(letter.to.length >= MANY_RECIPIENTS ? [{ kind: "many", count: letter.to.length } as const] : []),
    ...everybody.flatMap(({ address }) => {
      const away = known.away.get(address);
      return away === undefined ? [] : [{ kind: "away", ...away } as const];
    }),
  ];
}

function lookalikeOf(address: EmailAddress, { index, ours }: KnownOfRecipients): RecipientWarning[] {
  if (address.length < SHORTEST || ours.has(address) || (index.byAddress.get(address)?.times ?? 0) > 0) return [];
  let best: { readonly like: EmailAddress; readonly times: number; readonly distance: number } | null = null;
  // One slips in the name or in the domain: fifty thousand are not gone through for each.
  const near = halvesOf(address).flatMap((half) => index.byHalf.get(half) ?? []);
  for (const { address: like, times } of near) {
    if (times === 0 || Math.abs(like.length - address.length) > NEARLY || like === address) continue;
    const distance = typingDistance(address, like, NEARLY);
    const isBetter = best === null || distance < best.distance || (distance === best.distance && times > best.times);
    if (distance <= NEARLY && isBetter) best = { like, times, distance };
  }
  return best === null ? [] : [{ kind: "looks-like", address, like: best.like, times: best.times }];
}

// One from outside among at least two of ours may be a slip.
function outsiderIn(everybody: readonly Mailbox[], { ours }: KnownOfRecipients): RecipientWarning[] {
  const houses = new Set([...ours].map(domainOf));
  const outside = everybody.filter(({ address }) => !ours.has(address) && !houses.has(domainOf(address)));
  const [only] = outside;
  return only !== undefined && outside.length === 1 && everybody.length >= 3
    ? [{ kind: "outside", address: only.address }]
    : [];
}

const GREETING =
  /^\s*(?:dear|hello|hi|good (?:morning|day|evening)|guten tag|hallo|liebe[rs]?|bonjour|beste|buongiorno)\s+([^,:!\n]{2,60})[,:!\n]/iu;
// Titles and such are no names, and whoever is greeted as all of them is nobody in particular.
const NO_NAMES = new Set([
  "mr",
  "ms",
  "mrs",
  "miss",
  "dr",
  "prof",
  "sir",
  "madam",
  "all",
  "both",
  "everybody",
  "everyone",
  "colleagues",
  "team",
  "herr",
  "frau",
  "alle",
]);

function greetedAnother({ to, cc, text }: LetterToCheck, { index }: KnownOfRecipients): RecipientWarning[] {
  const [, greeted = ""] = GREETING.exec(text) ?? [];
  const names = foldedWords(greeted)
    .trim()
    .split(" ")
    .filter((word) => word.length > 1 && !NO_NAMES.has(word));
  const called = [...to, ...cc].map(({ name, address }) =>
    foldedWords(`${name} ${index.byAddress.get(address)?.name ?? ""} ${address}`),
  );
  // Of somebody whose name nobody knows anything may be right.
  if (
    names.length === 0 ||
    to.length === 0 ||
    to.some(({ name, address }) => !name && !index.byAddress.get(address)?.name)
  )
    return [];
  const isMeant = names.some((word) => called.some((words) => words.includes(` ${word}`)));
  return isMeant ? [] : [{ kind: "greets-another", name: greeted.trim() }];
}

function leftOut(everybody: readonly Mailbox[], { before }: KnownOfRecipients): RecipientWarning[] {
  const missing = before.filter(({ address }) => !everybody.some((one) => one.address === address));
  // To answer one of two is an answer; to leave out many of many is worth a word.
  return before.length >= 3 && missing.length > 0 && everybody.length > 0
    ? [{ kind: "left-out", mailboxes: missing }]
    : [];
}
