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

type Indexed = KnownRecipient & { readonly words: string; readonly weight: number };

/** Everybody a tray knows, ready to be looked through, the likeliest first; `text` has the words of all, a line for each. */
export type RecipientIndex = {
  readonly byAddress: ReadonlyMap<EmailAddress, Indexed>;
  /** The same by each half of their addresses: by what stands before the @ and, behind one, by the domain. */
  readonly byHalf: ReadonlyMap<string, readonly KnownRecipient[]>;
  readonly ordered: readonly Indexed[];
  readonly text: string;
  /** Where the line of each begins in the text. */
  readonly starts: readonly number[];
};

const HALF_LIFE = 90 * DAY;
const TOGETHER_WEIGHT = 3;
const BEGINS_WEIGHT = 1;
const KIND_WEIGHT = { contact: 1, colleague: 0.5, correspondent: 0 } as const;

/** Makes people ready to be looked through, as of a moment; of two with one address the first counts. */
export function recipientIndex(people: readonly KnownRecipient[], now: Instant): RecipientIndex {
  const byAddress = new Map<EmailAddress, Indexed>();
  for (const one of people) {
    if (byAddress.has(one.address)) continue;
    // The address once as words and once as it is typed.
    const words = `${foldedWords(`${one.name} ${one.organisation} ${one.address}`)}${one.address} `;
    byAddress.set(one.address, { ...one, words, weight: weightOf(one, now) });
  }
  const ordered = [...byAddress.values()].toSorted((a, b) => b.weight - a.weight || (a.address < b.address ? -1 : 1));
  const byHalf = new Map<string, KnownRecipient[]>();
  for (const one of ordered)
    for (const half of halvesOf(one.address)) {
      const some = byHalf.get(half);
      if (some === undefined) byHalf.set(half, [one]);
      else some.push(one);
    }
  const starts: number[] = [];
  let length = 0;
  for (const { words } of ordered) {
    starts.push(length);
    length += words.length + 1;
  }
  return { byAddress, byHalf, ordered, text: ordered.map(({ words }) => `\n${words}`).join(""), starts };
}

/** What stands before the @ of an address, and its domain behind one. */
export function halvesOf(address: EmailAddress): readonly [local: string, domain: string] {
  const at = address.lastIndexOf("@");
  return [address.slice(0, at), address.slice(at)];
}

// How often counts less and less, and the less the longer ago (half after ninety days).
function weightOf({ kind, times, lastAt }: KnownRecipient, now: Instant): number {
  const age = lastAt === null ? Number.POSITIVE_INFINITY : Math.max(0, now - lastAt);
  return Math.log1p(times) * 0.5 ** (age / HALF_LIFE) + KIND_WEIGHT[kind];
}

/** For what recipients are looked for: what was typed, who is in the list already, and how often others were with them. */
export type Looking = {
  readonly typed: string;
  readonly taken: readonly EmailAddress[];
  readonly together: ReadonlyMap<EmailAddress, number>;
};

/**
 * The best recipients for what was typed, at most so many: those that have a word beginning with each of its words, first
 * those written with often and lately, and together with who is in the list already. With nothing typed only the latter.
 */
export function completeRecipients(index: RecipientIndex, looking: Looking, most: number): KnownRecipient[] {
  const { typed, taken, together } = looking;
  // Each with the space before it, behind which a word begins.
  const asked = (typed.includes("@") ? [typed.trim().toLowerCase()] : foldedWords(typed).trim().split(" "))
    .filter((word) => word !== "")
    .map((word) => ` ${word}`);
  const fits = ({ words, address }: Indexed) => asked.every((word) => words.includes(word)) && !taken.includes(address);
  // Those of each kind come in the order of their weight: no more of them than could be among the best of all.
  const companions = [...together.keys()].flatMap((address) => index.byAddress.get(address) ?? []).filter(fits);
  const [first] = asked;
  const beginning = first === undefined ? [] : firstOf(havingText(index, `\n${first}`), most, fits);
  const rarest = asked.toSorted((a, b) => b.length - a.length)[0];
  const having = rarest === undefined ? [] : firstOf(havingText(index, rarest), most, fits);
  return [...new Set([...companions, ...beginning, ...having])]
    .map((one) => ({ one, score: one.weight + moreFor(one, first, together) }))
    .sort((a, b) => b.score - a.score || (a.one.address < b.one.address ? -1 : 1))
    .slice(0, most)
    .map(({ one: { words: _, weight: __, ...one } }) => one);
}

function firstOf(some: Iterable<Indexed>, most: number, fits: (one: Indexed) => boolean): Indexed[] {
  const found: Indexed[] = [];
  for (const one of some) {
    if (!fits(one)) continue;
    found.push(one);
    if (found.length === most) break;
  }
  return found;
}

function moreFor({ words, address }: Indexed, first: string | undefined, together: Looking["together"]): number {
  const begins = first !== undefined && words.startsWith(first) ? BEGINS_WEIGHT : 0;
  return begins + TOGETHER_WEIGHT * Math.log1p(together.get(address) ?? 0);
}

// Those with a text in their line, in order: it is looked for in the lines of all at once.
function* havingText({ ordered, text, starts }: RecipientIndex, asked: string): Generator<Indexed> {
  let place = 0;
  for (let found = text.indexOf(asked); found !== -1; found = text.indexOf(asked, starts[place])) {
    while (place < starts.length && (starts[place] ?? 0) <= found) place += 1;
    const one = ordered[place - 1];
    if (one !== undefined) yield one;
    if (place >= starts.length) return;
  }
}
