import type { EmailAddress } from "~/core/kernel/email-address";
import type { LearnedMessage } from "~/core/rule-learning/candidate-tests";
import { pick, seededRandom } from "~/demo/random";
import { SYLLABLES } from "./drifting-tray";

// An office's mail in which some messages belong together for a reason of their own: what makes a group is said here by
// how its messages come to be (who sends, through what, with which form of subject), and nowhere by what would find them.
const COMPANIES = 220;
const PEOPLE = 700;
const LISTS = 30;
const VOCABULARY = 1_400;

/** A message and the groups that it belongs to. */
export type GroupedMessage = LearnedMessage & { readonly groups: readonly string[] };

type Sender = { readonly address: EmailAddress; readonly habits: readonly Habit[] };
type Habit = { readonly weight: number; readonly write: () => GroupedMessage };

/** Mail of an office, with the groups that are in it; the same for the same seed. */
export function groupedMail(count: number, seed: number): { messages: GroupedMessage[]; groups: string[] } {
  const random = seededRandom(seed);
  const word = () => Array.from({ length: 2 + Math.floor(random() * 2) }, () => pick(random, SYLLABLES)).join("");
  const vocabulary = Array.from({ length: VOCABULARY }, word);
  // Some words are in every second letter, most in few.
  const any = () => vocabulary[Math.floor(random() ** 3 * vocabulary.length)] ?? "";
  const words = (least: number, most: number) =>
    Array.from({ length: least + Math.floor(random() * (most - least + 1)) }, any).join(" ");
  const domains = Array.from({ length: COMPANIES }, () => `${word()}.example`);
  const people = Array.from({ length: PEOPLE }, () => `${word()}@${pick(random, domains)}` as EmailAddress);
  const office = "office@ottermoor.example" as EmailAddress;
  const letter = (from: EmailAddress, subject: string, more: Partial<GroupedMessage> = {}): GroupedMessage => ({
    ...{ from, to: [office], cc: [], list: null, subject, ownText: words(10, 60), fileNames: [], groups: [] },
    ...more,
  });
  const number = () => String(1_000 + Math.floor(random() * 9_000));
  const plain = (from: EmailAddress): Habit => ({
    weight: 1,
    write: () => letter(from, `${random() < 0.3 ? "Re: " : ""}${words(2, 6)}${random() < 0.1 ? ` ${number()}` : ""}`),
  });
  const lists = Array.from({ length: LISTS }, (_, at) => ({
    id: `${word()}.${pick(random, domains)}`,
    name: `list ${at}`,
  }));
  const senders: Sender[] = people.map((address) => ({ address, habits: [plain(address)] }));
  const groups: string[] = [];

  const makes: Readonly<Record<string, (name: string) => void>> = {
    list: (name) => {
      const { id } = pick(random, lists);
      const members = Array.from({ length: 12 }, () => pick(random, people));
      const habit: Habit = {
        weight: 30,
        write: () =>
          letter(pick(random, members), words(2, 7), { list: id, to: [`all@${id}` as EmailAddress], groups: [name] }),
      };
      senders.push({ address: office, habits: [habit] });
    },
    sender: (name) => {
      const from = `${word()}@${pick(random, domains)}` as EmailAddress;
      senders.push({
        address: from,
        habits: [{ weight: 20, write: () => ({ ...plain(from).write(), groups: [name] }) }],
      });
    },
    form: (name) => {
      // One who writes about all sorts of things, and sends the same thing again and again.
      const from = `${word()}@${pick(random, domains)}` as EmailAddress;
      const title = words(2, 3);
      const report: Habit = { weight: 20, write: () => letter(from, `${title} ${number()}`, { groups: [name] }) };
      senders.push({ address: from, habits: [report, { ...plain(from), weight: 15 }] });
    },
    tag: (name) => {
      // Many people write with it, and with other subjects as well.
      const tag = `[${word()}]`;
      const circle = Array.from({ length: 9 }, () => pick(random, people));
      const habit: Habit = {
        weight: 25,
        write: () => letter(pick(random, circle), `${tag} ${words(2, 5)}`, { groups: [name] }),
      };
      senders.push({ address: office, habits: [habit] });
    },
    suppliers: (name) => {
      // Three suppliers whose bills belong together; they write of other things too.
      const title = pick(random, vocabulary.slice(200));
      for (let at = 0; at < 3; at += 1) {
        const from = `${word()}@${pick(random, domains)}` as EmailAddress;
        const bill: Habit = {
          weight: 10,
          write: () =>
            letter(from, `${title} ${number()}${random() < 0.5 ? ` ${any()}` : ""}`, {
              groups: [name],
              fileNames: [`${title}-${number()}.pdf`],
            }),
        };
        senders.push({ address: from, habits: [bill, { ...plain(from), weight: 10 }] });
      }
    },
    mixed: (name) => {
      // A list and a person who have nothing in common but that they belong together.
      const { id } = pick(random, lists);
      const from = `${word()}@${pick(random, domains)}` as EmailAddress;
      const members = Array.from({ length: 6 }, () => pick(random, people));
      const listed: Habit = {
        weight: 12,
        write: () => letter(pick(random, members), words(2, 7), { list: `x-${id}`, groups: [name] }),
      };
      const personal: Habit = { weight: 12, write: () => ({ ...plain(from).write(), groups: [name] }) };
      senders.push({ address: from, habits: [listed, personal] });
    },
  };
  for (const [kind, make] of Object.entries(makes)) {
    for (let at = 0; at < 4; at += 1) {
      groups.push(`${kind} ${at}`);
      make(`${kind} ${at}`);
    }
  }
  const habits = senders.flatMap(({ habits: own }) =>
    own.flatMap((habit) => Array.from({ length: habit.weight * 2 }, () => habit)),
  );
  return { messages: Array.from({ length: count }, () => pick(random, habits).write()), groups };
}
