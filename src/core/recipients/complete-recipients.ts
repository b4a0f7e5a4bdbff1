import type { EmailAddress } from "../kernel/email-address";
import { foldedWords } from "../kernel/folded-words";
import { DAY, type Instant } from "../kernel/instant";

/** Somebody whom a message can go to, with how often the tray wrote to them or they to it, and when last. */
export type KnownRecipient = {
  readonly name: string;
  readonly address: EmailAddress;
  readonly organisation: string;
  readonly kind: "contact" | "colleague" | "correspondent";
  readonly times: number;
  readonly lastAt: Instant | null;
};

/** Everybody a tray knows, ready to be looked through; keyed by address. */
export type RecipientIndex = ReadonlyMap<EmailAddress, KnownRecipient & { readonly words: string }>;

/** Makes people ready to be looked through; of two with one address the first counts. */
export function recipientIndex(people: readonly KnownRecipient[]): RecipientIndex {
  const index = new Map<EmailAddress, KnownRecipient & { readonly words: string }>();
  for (const one of people) {
    if (index.has(one.address)) continue;
    // The address once as words and once as it is typed.
    const words = `${foldedWords(`${one.name} ${one.organisation} ${one.address}`)}${one.address} `;
    index.set(one.address, { ...one, words });
  }
  return index;
}

/** For what recipients are looked for: what was typed, who is in the list already, and how often others were with them. */
export type Looking = {
  readonly typed: string;
  readonly taken: readonly EmailAddress[];
  readonly together: ReadonlyMap<EmailAddress, number>;
  readonly now: Instant;
};

const HALF_LIFE = 90 * DAY;
const TOGETHER_WEIGHT = 3;
const BEGINS_WEIGHT = 1;
const KIND_WEIGHT = { contact: 1, colleague: 0.5, correspondent: 0 } as const;

/**
 * The best recipients for what was typed, at most so many: those that have a word beginning with each of its words, first
 * those written with often and lately, and together with who is in the list already. With nothing typed only the latter.
 */
export function completeRecipients(index: RecipientIndex, looking: Looking, most: number): KnownRecipient[] {
  const { typed, taken, together } = looking;
  const asked = typed.includes("@")
    ? [typed.trim().toLowerCase()]
    : foldedWords(typed)
        .trim()
        .split(" ")
        .filter((word) => word !== "");
  const best: { readonly one: KnownRecipient; readonly score: number }[] = [];
  for (const { words, ...one } of index.values()) {
    if (asked.length === 0 && !together.has(one.address)) continue;
    if (!asked.every((word) => words.includes(` ${word}`)) || taken.includes(one.address)) continue;
    const begins = asked[0] !== undefined && words.startsWith(` ${asked[0]}`) ? BEGINS_WEIGHT : 0;
    best.push({ one, score: scoreOf(one, looking) + begins });
  }
  return best
    .toSorted((a, b) => b.score - a.score || (a.one.address < b.one.address ? -1 : 1))
    .slice(0, most)
    .map(({ one }) => one);
}

// How often counts less and less, and the less the longer ago (half after ninety days).
function scoreOf({ address, kind, times, lastAt }: KnownRecipient, { together, now }: Looking): number {
  const age = lastAt === null ? Number.POSITIVE_INFINITY : Math.max(0, now - lastAt);
  const often = Math.log1p(times) * 0.5 ** (age / HALF_LIFE);
  return often + KIND_WEIGHT[kind] + TOGETHER_WEIGHT * Math.log1p(together.get(address) ?? 0);
}
