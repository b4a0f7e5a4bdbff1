import { d, file, type Script, settle, tell, they, we } from "./script";
import type { PersonKey } from "./world";

const ROLLING = {
  "List-Id": "Rolling Guild <rolling.tinguild.example>",
  "List-Unsubscribe": "<mailto:leave@tinguild.example>",
  Precedence: "list",
};
const PRICES = {
  "List-Id": "Metal prices <prices.tinspelter.example>",
  "List-Unsubscribe": "<https://tinspelter.example/leave?of=parts>",
  "List-Unsubscribe-Post": "List-Unsubscribe=One-Click",
};
const MACHINE = { "Auto-Submitted": "auto-generated" };

type Series = {
  readonly who: PersonKey;
  /** With a number in the place of #. */
  readonly subject: string;
  readonly text: string;
  readonly count: number;
  /** Working days ago: the newest one, and from one to the next. */
  readonly newest: number;
  readonly every: number;
  readonly headers?: Readonly<Record<string, string>>;
};

const SERIES: readonly Series[] = [
  {
    who: "guild",
    subject: "[rolling] Question # of the season",
    count: 14,
    newest: 66,
    every: 9,
    text: "Has anybody tried this with less tin? Answers to the list, please.",
    headers: ROLLING,
  },
  {
    who: "tin",
    subject: "Metal prices, number #",
    count: 22,
    newest: 64,
    every: 5,
    text: "Tin is up, spelter is down, and the day sheet is on our page.",
    headers: PRICES,
  },
  {
    who: "gunnel",
    subject: "Consignment # has been delivered",
    count: 9,
    newest: 70,
    every: 12,
    text: "This notice is made by a machine. Nobody reads answers to it.",
    headers: MACHINE,
  },
  {
    who: "felt",
    subject: "Felt sample #",
    count: 6,
    newest: 75,
    every: 20,
    text: "We have a new felt and would send a sample. May we?",
  },
  {
    who: "quayle",
    subject: "A thought about blowers, #",
    count: 4,
    newest: 90,
    every: 30,
    text: "Could one not put a second felt under it? I would be glad of an answer when there is time.",
  },
];

function told({ who, subject, text, count, newest, every, headers = {} }: Series): Script[] {
  return Array.from({ length: count }, (_, at) =>
    tell("parts", who, subject.replace("#", `${count - at}`), they(d(newest + at * every, "10:20"), text, { headers })),
  );
}

// Done with, filed, and its record closed since.
const DONE: readonly Script[] = [
  tell(
    "office",
    "sexton",
    "A reed organ for the vestry",
    they(d(272, "10:05"), "The vestry has been left a reed organ of four ranks. Half of the reeds are silent."),
    file(d(272, "11:00"), "ines", "P-25-004"),
    we(d(271, "09:30"), "sunniva", "Four ranks fit into the van. Is there a morning on which the vestry is open?", {
      replyWithin: 5,
    }),
    they(d(269, "16:40"), "It does. The key is with me, as always."),
    settle(d(262, "12:00"), "sunniva"),
  ),
  tell(
    "office",
    "sexton",
    "What the reed organ came to",
    they(d(264, "08:50"), "Could the account go to the churchwardens and not to me?"),
    file(d(264, "09:20"), "ines", "P-25-004"),
    we(d(264, "10:10"), "ines", "The account has gone to them.", "settle"),
  ),
];

/** What is long past: in the office, and what lay in the mailbox of the parts tray before it became one. */
export const OLDER_STORIES: readonly Script[] = [...DONE, ...SERIES.flatMap(told)];
