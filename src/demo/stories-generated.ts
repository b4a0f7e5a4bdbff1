import { pick, seededRandom } from "./random";
import { assign, type Colleague, d, file, give, m, type Script, type Step, settle, tell, they, we } from "./script";
import type { PersonKey } from "./world";

type Matter = {
  readonly tray: Script["tray"];
  readonly who: readonly PersonKey[];
  readonly subject: string;
  readonly ask: string;
  readonly answer: string;
  readonly thanks: string;
  readonly category: string;
  readonly record: string | null;
};

const MATTERS: readonly Matter[] = [
  {
    tray: "office",
    who: ["pargeter", "brannoc", "dean"],
    subject: "Tuning before {feast}",
    ask: "Could somebody come and tune before {feast}? The reeds have gone their own way since the heating was lit.",
    answer: "Col can come on a morning that week; please have the heating off the evening before.",
    thanks: "That suits us. The heating will be off, and the choir has been told.",
    category: "TU",
    record: "C-041",
  },
  {
    tray: "office",
    who: ["ister"],
    subject: "Examination in room {number}",
    ask: "Room {number} has an examination and its practice organ has a silent D. Is there anything we can do ourselves?",
    answer: "Please pull the key up gently and look whether a pencil has fallen behind it. If not, we come tomorrow.",
    thanks: "It was a pencil.",
    category: "EX",
    record: "C-005",
  },
  {
    tray: "office",
    who: ["marl"],
    subject: "Timber for job {number}",
    ask: "The limewood for job {number} is dry enough now. Shall we plane it to 22 or leave that to you?",
    answer: "Please plane it to 24, we take the rest off here.",
    thanks: "Done, it is on the Tuesday van.",
    category: "TM",
    record: "P-26-040",
  },
  {
    tray: "office",
    who: ["gunnel"],
    subject: "Consignment {number}",
    ask: "Consignment {number} is ready to leave. Where may the driver stop?",
    answer: "In the yard, from the lane behind. The front is too steep for a lorry.",
    thanks: "Delivered and signed for.",
    category: "DL",
    record: null,
  },
  {
    tray: "office",
    who: ["brannoc", "sorrel"],
    subject: "Invoice {number}",
    ask: "We cannot find what invoice {number} is for. Could you send the day sheet?",
    answer: "It is the visit in the week of {feast}; the day sheet is in the post.",
    thanks: "Found and paid, thank you.",
    category: "IN",
    record: "C-014",
  },
  {
    tray: "office",
    who: ["halse"],
    subject: "Policy {number}, yearly review",
    ask: "For policy {number} we need the list of instruments that are in your workshop at present.",
    answer: "Four at present: the Sorrel case, the Quayle blower chest, and two practice organs of the conservatory.",
    thanks: "Noted, the premium stays as it is.",
    category: "IS",
    record: null,
  },
  {
    tray: "office",
    who: ["veldt"],
    subject: "Recital on {feast}, piano and organ",
    ask: "The pianist of {feast} wants 442. What would the organ say to that?",
    answer: "The organ says 440, and it is older than the pianist.",
    thanks: "Then 440 it will be.",
    category: "EX",
    record: "C-008",
  },
  {
    tray: "office",
    who: ["sorrel"],
    subject: "Candles near the case, {feast}",
    ask: "On {feast} there will be candles on the gallery. How far from the case must they stand?",
    answer: "Two metres at least, and never below the impost. A bucket of sand would make us sleep better.",
    thanks: "There will be sand.",
    category: "HO",
    record: "P-26-012",
  },
  {
    tray: "parts",
    who: ["valves", "felt"],
    subject: "Order {number}",
    ask: "Your order {number} has left us today, but for the small washers, which follow.",
    answer: "Thank you; the washers may come with the next order.",
    thanks: "Then we wait until there is a next one.",
    category: "DL",
    record: null,
  },
  {
    tray: "parts",
    who: ["tin"],
    subject: "Weight note {number}",
    ask: "The weight note {number} gives 96 kilograms, our scales gave 97.",
    answer: "We go by yours. Please send the corrected note.",
    thanks: "Corrected and enclosed.",
    category: "PW",
    record: "P-26-040",
  },
];
const FEASTS = [
  "harvest",
  "the patronal feast",
  "All Hallows",
  "the advent concert",
  "the confirmation",
  "the wedding of the mayor",
];
const HELPERS: readonly Colleague[] = ["ines", "tobias", "col", "petra", "mattis", "sunniva"];

const PAST = 54;
const OLDEST_WORKING_DAYS = 62;
const SEED = 20_260_117;
const SETTLED_TODAY = 6;
const NEW_TODAY = 12;
const ASSIGNED = 14;

type Telling = {
  readonly matter: Matter;
  readonly who: PersonKey;
  readonly said: (text: string) => string;
};

// Mostly it goes to whoever usually does it.
const USUALLY = 0.7;

function helperFor(matter: Matter, random: () => number): Colleague {
  const chance = random();
  const at =
    chance < USUALLY ? MATTERS.indexOf(matter) : Math.floor(((chance - USUALLY) / (1 - USUALLY)) * HELPERS.length);
  return HELPERS[at % HELPERS.length] ?? "ines";
}

/** So much past business, from long ago to two days ago: the same for the same seed. */
export function pastStories(count: number, seed: number): Script[] {
  const random = seededRandom(seed);
  return pastOf(count, random);
}

function pastOf(count: number, random: () => number): Script[] {
  return Array.from({ length: count }, (_, at) =>
    pastStory(random, Math.round(2 + (at / count) * (OLDEST_WORKING_DAYS - 2))),
  );
}

/** What everyday business adds to the stories told by hand: the same for the same seed. */
export function everydayStories(): Script[] {
  const random = seededRandom(SEED);
  const times = <T>(count: number, make: (at: number) => T) => Array.from({ length: count }, (_, at) => make(at));
  return [
    ...pastOf(PAST, random),
    ...times(SETTLED_TODAY, (at) => settledStory(random, 40 + at * 55)),
    ...times(NEW_TODAY, (at) => newStory(random, 12 + at * 71)),
    ...times(ASSIGNED, (at) => assignedStory(random, 1 + Math.floor(at * 0.8))),
  ];
}

function telling(random: () => number): Telling {
  const matter = pick(random, MATTERS);
  const feast = pick(random, FEASTS);
  const number = String(2_000 + Math.floor(random() * 900));
  const said = (text: string) => text.replaceAll("{feast}", feast).replaceAll("{number}", number);
  return { matter, who: pick(random, matter.who), said };
}

function pastStory(random: () => number, daysAgo: number): Script {
  const { matter, who, said } = telling(random);
  const [helper, sorter] = [helperFor(matter, random), pick(random, HELPERS)];
  const asked = `${String(8 + Math.floor(random() * 6)).padStart(2, "0")}:${String(10 + Math.floor(random() * 49))}`;
  const steps: (Step | Step[])[] = [
    they(d(daysAgo, asked), said(matter.ask)),
    assign(d(daysAgo, "14:30"), sorter, helper),
  ];
  if (random() < 0.85) steps.push(give(d(daysAgo, "14:31"), sorter, matter.category));
  if (matter.record !== null && random() < 0.8) steps.push(file(d(daysAgo, "14:32"), sorter, matter.record));
  if (random() < 0.6 && daysAgo > 3) {
    steps.push(we(d(daysAgo, "15:05"), helper, said(matter.answer), { replyWithin: 4 }));
    steps.push(they(d(daysAgo - 1, "09:40"), said(matter.thanks)));
    steps.push(settle(d(daysAgo - 1, "10:15"), helper));
  } else {
    steps.push(we(d(daysAgo, "15:05"), helper, said(matter.answer), "settle"));
  }
  return tell(matter.tray, who, said(matter.subject), ...steps);
}

function settledStory(random: () => number, minutesAgo: number): Script {
  const { matter, who, said } = telling(random);
  const helper = helperFor(matter, random);
  return tell(
    matter.tray,
    who,
    said(matter.subject),
    they(d(1, "16:50"), said(matter.ask)),
    assign(d(1, "17:05"), helper, helper),
    give(d(1, "17:05"), helper, matter.category),
    matter.record === null ? [] : file(d(1, "17:06"), helper, matter.record),
    we(m(minutesAgo), helper, said(matter.answer), "settle"),
  );
}

function newStory(random: () => number, minutesAgo: number): Script {
  const { matter, who, said } = telling(random);
  return tell(matter.tray, who, said(matter.subject), they(m(minutesAgo), said(matter.ask)));
}

function assignedStory(random: () => number, daysAgo: number): Script {
  const { matter, who, said } = telling(random);
  const [helper, sorter] = [helperFor(matter, random), pick(random, HELPERS)];
  const steps: (Step | Step[])[] = [
    they(d(daysAgo, "10:20"), said(matter.ask)),
    assign(d(daysAgo, "11:00"), sorter, helper),
    give(d(daysAgo, "11:01"), sorter, matter.category),
  ];
  if (matter.record !== null) steps.push(file(d(daysAgo, "11:02"), sorter, matter.record));
  return tell(matter.tray, who, said(matter.subject), ...steps);
}
