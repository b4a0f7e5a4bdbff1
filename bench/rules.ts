import type { EmailAddress } from "~/core/kernel/email-address";
import { domainOf } from "~/core/kernel/email-address";
import { trustedId } from "~/core/kernel/ids";
import { learnConditions } from "~/core/rule-learning/learn-condition";
import type { Condition } from "~/core/rules/condition";
import { rulesThatHold } from "~/core/rules/examine-condition";
import type { Rule } from "~/core/rules/rule";
import { indexRules } from "~/core/rules/rule-index";
import { testedMessage } from "~/core/rules/test-message";
import { pick, seededRandom } from "~/demo/random";
import { onThisMachine } from "../tests/support/pace";
import { aRuledMessage } from "../tests/support/ruled-messages";
import { type GroupedMessage, groupedMail } from "./learned-groups";
import { type Figure, plain } from "./measure";

const RULES = 100;
const MATCHED = 200_000;
const ASKED_A_SECOND = 20_000;
const LEARNED_FROM = 20_000;
const SEEDS = [1, 2, 3];
const EXAMPLES = 20;
const ASKED_MS = 2_000;
const ASKED_RIGHT = 0.95;

/** How fast rules are matched in the core, and how fast and how well they are learned from examples. */
export function ruleFigures(): Figure[] {
  return [matchingFigure(), ...learningFigures()];
}

function matchingFigure(): Figure {
  const { messages } = groupedMail(MATCHED, 1);
  const index = indexRules(someRules(messages));
  const began = performance.now();
  let matched = 0;
  for (const one of messages) {
    const tested = testedMessage(ruled(one));
    matched += rulesThatHold(index.candidates(tested), tested).length;
  }
  const each = messages.length / ((performance.now() - began) / 1_000);
  const here = ASKED_A_SECOND / onThisMachine(1);
  const [asked, askedHere] = [ASKED_A_SECOND, here].map((figure) => Math.round(figure).toLocaleString("en"));
  return plain(
    `${RULES} rules over ${MATCHED.toLocaleString("en")} messages, ${matched.toLocaleString("en")} times for one`,
    "messages a second",
    each,
    `at least ${asked} where nothing else runs, ${askedHere} on this machine now`,
    each >= here && matched > MATCHED / 100,
  );
}

const ruled = ({ fileNames, groups: _, ...message }: GroupedMessage) =>
  aRuledMessage({
    ...message,
    attachments: fileNames.map((fileName) => ({ fileName, contentType: "application/pdf", size: 1 })),
  });

// Most by whom a message is from, many by words, some by patterns and by what has to be looked at in each.
function someRules(messages: readonly GroupedMessage[]): Rule[] {
  const random = seededRandom(5);
  const often = new Map<string, number>();
  for (const { subject, ownText } of messages.slice(0, 5_000))
    for (const word of `${subject} ${ownText}`.split(" ")) often.set(word, (often.get(word) ?? 0) + 1);
  // Rules are about what is particular.
  const word = (text: string) =>
    text.split(" ").toSorted((a, b) => (often.get(a) ?? 0) - (often.get(b) ?? 0))[0] ?? "nothing";
  return Array.from({ length: RULES }, (_, at): Rule => {
    const { from, subject, ownText } = pick(random, messages);
    const address = from ?? ("a@x.example" as EmailAddress);
    const sender: Condition = { kind: "address", where: "from", of: [{ kind: "address", address }] };
    const house: Condition = { kind: "address", where: "from", of: [{ kind: "domain", domain: domainOf(address) }] };
    const inSubject: Condition = { kind: "text", where: "subject", match: { how: "words", values: [word(subject)] } };
    const inText: Condition = {
      kind: "text",
      where: "text",
      match: { how: "words", values: [word(ownText), word(ownText)] },
    };
    const pattern: Condition = {
      kind: "text",
      where: "subject",
      match: { how: "pattern", values: [`${word(subject)} \\d+`] },
    };
    const kinds: Condition[] = [
      sender,
      { kind: "all", of: [house, inSubject] },
      { kind: "any", of: [sender, inSubject] },
      { kind: "all", of: [inText, { kind: "none", of: [{ kind: "list", of: ["x.example"] }] }] },
      { kind: "all", of: [house, pattern] },
    ];
    // Every tenth has to look at every message.
    const condition = at % 10 === 9 ? pattern : (kinds[at % kinds.length] ?? sender);
    const actions = [{ kind: "settle" }] as const;
    return { id: trustedId(`r${at}`), name: `${at}`, isOn: true, isLast: false, condition, exception: null, actions };
  });
}

function learningFigures(): Figure[] {
  const [precisions, recalls, times]: [number[], number[], number[]] = [[], [], []];
  for (const seed of SEEDS) {
    const { messages, groups } = groupedMail(LEARNED_FROM, seed);
    for (const group of groups) {
      const members = messages.flatMap((message, at) => (message.groups.includes(group) ? [at] : []));
      const chosen = new Set(members.slice(0, EXAMPLES));
      const rest = messages.flatMap((_, at) => (chosen.has(at) ? [] : [at]));
      const those = (places: readonly number[]) => places.flatMap((at) => messages[at] ?? []);
      const began = performance.now();
      const [first] = learnConditions({ examples: those([...chosen]), others: those(rest), treatedAlike: null });
      times.push(performance.now() - began);
      const found = new Set(first?.others.map((place) => rest[place]));
      const held = members.filter((at) => !chosen.has(at));
      const hit = held.filter((at) => found.has(at)).length;
      precisions.push(hit / Math.max(1, found.size));
      recalls.push(hit / Math.max(1, held.length));
    }
  }
  const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / all.length;
  const longest = Math.max(...times);
  const learned = `learning from ${EXAMPLES} examples over ${LEARNED_FROM.toLocaleString("en")} conversations`;
  const right = (what: string, all: readonly number[]) =>
    plain(
      `${all.length} held-out groups: ${what} of the first proposal, the least ${(100 * Math.min(...all)).toFixed(0)} %, in the mean`,
      "%",
      100 * mean(all),
      `at least ${100 * ASKED_RIGHT} %`,
      mean(all) >= ASKED_RIGHT,
    );
  return [
    plain(`${learned}, the longest of ${times.length}`, "ms", longest, `under ${ASKED_MS} ms`, longest < ASKED_MS),
    right("precision", precisions),
    right("recall", recalls),
  ];
}
