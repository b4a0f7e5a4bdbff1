import { pick, seededRandom } from "~/demo/random";

/** A conversation of a generated tray: its first letter, and what the team decided about it. */
export type MadeUp = {
  readonly id: string;
  readonly from: string;
  readonly listId: string | null;
  readonly subject: string;
  readonly ownText: string;
  readonly categories: readonly string[];
  readonly record: string | null;
  readonly owner: string;
};

// What people want is hidden: a matter has its own way of speaking and its own place in the office, people bring matters by
// their calling, colleagues move between matters over the time, and now and then somebody sorts otherwise than usual. None of
// it is told to whoever proposes, and nothing is decided by counting what was done before.
const MATTERS = 24;
const OWN_WORDS = 14;
const COMMON_WORDS = 400;
const ORGANISATIONS = 260;
const SOMETIMES_OTHERWISE = 0.06;
const NOT_CATEGORISED = 0.1;
const FILED_MATTERS = 0.6;
const OWNERS = 6;
const SYLLABLES = ["bar", "ten", "lo", "mi", "ran", "sel", "tu", "vor", "win", "ke", "dal", "pry", "hus", "om", "ne"];

type Matter = {
  readonly category: string;
  readonly extra: string | null;
  readonly words: readonly string[];
  isFiled: boolean;
  owner: number;
};
type Organisation = {
  readonly domain: string;
  readonly people: readonly string[];
  /** The matters it comes with, the usual ones several times. */
  readonly matters: readonly number[];
  readonly isList: boolean;
  /** Its projects one after the other, as their numbers. */
  readonly projects: readonly number[];
};

/** So many conversations of one tray in the order in which they came, the same for the same seed. */
export function madeUpTray(count: number, seed: number): MadeUp[] {
  const random = seededRandom(seed);
  const below = (most: number) => Math.floor(random() * most);
  const word = () => Array.from({ length: 2 + below(2) }, () => pick(random, SYLLABLES)).join("");
  const common = Array.from({ length: COMMON_WORDS }, word);
  const matters: Matter[] = Array.from({ length: MATTERS }, (_, at) => ({
    category: `category-${at}`,
    extra: at % 5 === 0 ? `category-${(at + 7) % MATTERS}` : null,
    words: Array.from({ length: OWN_WORDS }, word),
    isFiled: random() < FILED_MATTERS,
    owner: below(OWNERS),
  }));
  const organisations = Array.from({ length: ORGANISATIONS }, (_, at) => organisation(at, random, below, word));
  const letters: MadeUp[] = [];
  for (let at = 0; at < count; at += 1) {
    // Once in a while a matter passes to another colleague.
    if (random() < 0.0012) pick(random, matters).owner = below(OWNERS);
    // A few write much, many write little.
    const from = organisations[Math.floor(ORGANISATIONS * random() ** 2.2)] ?? pick(random, organisations);
    letters.push(letter(at, count, from, matters, { random, below, common }));
  }
  return letters;
}

function organisation(
  at: number,
  random: () => number,
  below: (most: number) => number,
  word: () => string,
): Organisation {
  const usual = below(MATTERS);
  const others = Array.from({ length: below(3) }, () => below(MATTERS));
  const isList = random() < 0.06;
  return {
    domain: `${word()}${at}.example`,
    people: Array.from({ length: isList ? 1 : 1 + below(4) }, word),
    matters: isList ? [usual] : [usual, usual, usual, ...others],
    isList,
    projects: Array.from({ length: 1 + below(3) }, (_, project) => at * 4 + project),
  };
}

type Chance = {
  readonly random: () => number;
  readonly below: (most: number) => number;
  readonly common: readonly string[];
};

function letter(
  at: number,
  count: number,
  from: Organisation,
  matters: readonly Matter[],
  { random, below, common }: Chance,
): MadeUp {
  const matter = matters[pick(random, from.matters)] ?? pick(random, matters);
  const said = (own: number, of: number) =>
    Array.from({ length: of }, () => (random() < own ? pick(random, matter.words) : pick(random, common))).join(" ");
  const isOtherwise = () => random() < SOMETIMES_OTHERWISE;
  const current = from.projects[Math.min(from.projects.length - 1, Math.floor((at / count) * from.projects.length))];
  const project = isOtherwise() ? pick(random, from.projects) : current;
  const usual = [matter.category, ...(matter.extra !== null && random() < 0.8 ? [matter.extra] : [])];
  const given = random() < NOT_CATEGORISED ? [] : isOtherwise() ? [pick(random, matters).category] : usual;
  const isFiled = !from.isList && (isOtherwise() ? !matter.isFiled : matter.isFiled);
  return {
    id: String(at),
    from: `${pick(random, from.people)}@${from.domain}`,
    listId: from.isList ? `news.${from.domain}` : null,
    subject: `${said(0.55, 2 + below(4))} ${below(9_000)}`,
    ownText: said(0.3, 12 + below(40)),
    categories: given,
    record: isFiled && project !== undefined ? `record-${project}` : null,
    owner: `owner-${isOtherwise() ? below(OWNERS) : matter.owner}`,
  };
}
