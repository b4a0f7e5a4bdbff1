import type { Instant } from "../../../core/kernel/instant";
import { foundInWords, type RuleNames, testInWords } from "../../../core/rules/condition-in-words";
import type { Examined } from "../../../core/rules/examine-condition";
import type { RuleVerdict } from "../../../core/rules/explain-rules";
import type { MarkedPiece } from "../../../core/rules/marked-text";
import { dayInWords } from "../../../core/time/day-words";
import type { ExplainedMessage } from "../../../operations/index.server";
import { speak } from "../base/say.server";

/** A line of a condition: a test, or how those below it are joined; and whether it is so of the message. */
export type ExplainedLine = {
  /** Its place among the lines. */
  readonly at: number;
  readonly depth: number;
  readonly words: string;
  readonly holds: boolean;
};

/** What rules make of a message, in words. */
export type ExplainedView = {
  readonly conversationId: string;
  readonly standing: string;
  readonly who: string;
  readonly when: string;
  readonly subject: readonly MarkedPiece[];
  readonly text: readonly MarkedPiece[];
  readonly rules: readonly {
    readonly id: string;
    readonly name: string;
    readonly verdict: RuleVerdict;
    readonly isLast: boolean;
    readonly condition: readonly ExplainedLine[];
    /** Empty where it makes none. */
    readonly exception: readonly ExplainedLine[];
  }[];
};

/** What rules make of a message in the words of this moment and zone. */
export function explainedView(
  { rules, names, at, ...message }: ExplainedMessage,
  now: Instant,
  zone: string,
): ExplainedView {
  return {
    ...message,
    when: speak(dayInWords(at, now, zone)),
    rules: rules.map(({ rule: { id, name, isLast }, verdict, condition, exception }) => ({
      ...{ id, name, isLast, verdict },
      condition: numbered(linesOf(condition, names)),
      exception: exception === null ? [] : numbered(linesOf(exception, names)),
    })),
  };
}

const numbered = (lines: readonly Line[]): ExplainedLine[] => lines.map((line, at) => ({ ...line, at }));

type Line = Omit<ExplainedLine, "at">;

function linesOf(examined: Examined, names: RuleNames, depth = 0): Line[] {
  const { holds } = examined;
  if ("test" in examined) {
    const { test, found } = examined;
    const words = speak(found === null ? testInWords(test, names) : foundInWords(test, found, names));
    return [{ depth, words, holds }];
  }
  const [only, ...more] = examined.of;
  if (only !== undefined && more.length === 0 && examined.group !== "none") return linesOf(only, names, depth);
  const head = { depth, words: speak("rules.joined", { kind: examined.group }), holds };
  return [head, ...examined.of.flatMap((one) => linesOf(one, names, depth + 1))];
}
