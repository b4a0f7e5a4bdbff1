import { answersTexts } from "../../texts/en/answers";
import { type Said, saidOf } from "../../texts/said";
import { type ConditionProblem, conditionProblems } from "../rules/check-condition";
import { unknownBlanks } from "./answer-letter";
import type { AnswerText, AutomaticAnswer } from "./automatic-answer";

const said = saidOf(answersTexts);

/** What is wrong with a text of an answer. */
type AnswerTextProblems = { readonly text?: Said; readonly condition?: readonly ConditionProblem[] };

/** What is wrong with an automatic answer, by field; of its texts by their places. */
export type AnswerProblems = {
  readonly name?: Said;
  readonly until?: Said;
  readonly days?: Said;
  readonly texts?: Said | ReadonlyMap<number, AnswerTextProblems>;
};

const MAX_NAME = 60;
const MAX_TEXTS = 20;
const MAX_CHARACTERS = 10_000;
const MAX_DAYS = 365;

/** What is wrong with an automatic answer among the names of the others; nothing when it can stand. */
export function checkAutomaticAnswer(
  { name, from, until, pace, texts }: Omit<AutomaticAnswer, "id">,
  others: readonly string[],
): AnswerProblems {
  const ofName = nameProblem(name.trim(), others);
  const ofTexts = textsProblem(texts);
  const isBackwards = from !== null && until !== null && until <= from;
  const isNoPace = pace.kind === "once" && !(Number.isInteger(pace.days) && pace.days >= 1 && pace.days <= MAX_DAYS);
  return {
    ...(ofName === null ? {} : { name: ofName }),
    ...(isBackwards ? { until: said("answers.endsBeforeItBegins") } : {}),
    ...(isNoPace ? { days: said("answers.daysFromTo", { most: MAX_DAYS }) } : {}),
    ...(ofTexts === null ? {} : { texts: ofTexts }),
  };
}

function nameProblem(name: string, others: readonly string[]): Said | null {
  if (name === "") return said("answers.giveItAName");
  if (name.length > MAX_NAME) return said("answers.aNameHasAtMost", { most: MAX_NAME });
  const isTaken = others.some((other) => other.toLowerCase() === name.toLowerCase());
  return isTaken ? said("answers.anotherHasThatName") : null;
}

function textsProblem(texts: readonly AnswerText[]): NonNullable<AnswerProblems["texts"]> | null {
  if (texts.length === 0) return said("answers.writeWhatIsAnswered");
  if (texts.length > MAX_TEXTS) return said("answers.atMostTexts", { most: MAX_TEXTS });
  const problems = texts.map(textProblems);
  const wrong = problems.flatMap((one, at) => (Object.keys(one).length === 0 ? [] : [[at, one] as const]));
  return wrong.length === 0 ? null : new Map(wrong);
}

function textProblems({ condition, text }: AnswerText): AnswerTextProblems {
  const ofCondition = conditionProblems(condition);
  const ofText = textProblem(text);
  return {
    ...(ofText === null ? {} : { text: ofText }),
    ...(ofCondition.length === 0 ? {} : { condition: ofCondition }),
  };
}

function textProblem(text: string): Said | null {
  if (text.trim() === "") return said("answers.writeWhatIsAnswered");
  if (text.length > MAX_CHARACTERS) return said("answers.atMostCharacters", { most: MAX_CHARACTERS });
  const [unknown] = unknownBlanks(text);
  return unknown === undefined ? null : said("answers.isNoBlank", { name: `[${unknown}]` });
}
