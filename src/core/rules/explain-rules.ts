import type { RuleId } from "../kernel/ids";
import { type Examined, examineCondition, type Held, whyRuleHolds } from "./examine-condition";
import type { Rule } from "./rule";
import type { TestedMessage } from "./test-message";

/**
 * Whether a rule is for a message: it is, it makes an exception of it, it is not, nobody asked it, it is off, or it is
 * stopped, as it names what is no more.
 */
export type RuleVerdict = "forIt" | "excepted" | "notForIt" | "notAsked" | "off" | "stopped";

/** Why a rule is for a message, or why not, part by part. */
export type ExplainedRule<R> = {
  readonly rule: R;
  readonly verdict: RuleVerdict;
  readonly condition: Examined;
  readonly exception: Examined | null;
  /** What of the message made it hold, where nothing is in the way of that but an earlier rule or that it is off. */
  readonly held: readonly Held[];
};

/** What each rule makes of a message, in their order; after one that is the last for it, none is asked. */
export function explainRules<R extends Pick<Rule, "id" | "isOn" | "isLast" | "condition" | "exception">>(
  rules: readonly R[],
  message: TestedMessage,
  isStopped: (id: RuleId) => boolean,
): ExplainedRule<R>[] {
  let isAsked = true;
  return rules.map((rule) => {
    const condition = examineCondition(rule.condition, message);
    const exception = rule.exception === null ? null : examineCondition(rule.exception, message);
    const held = whyRuleHolds(rule, message);
    const isIdle = rule.isOn && isStopped(rule.id);
    const verdict = isIdle ? "stopped" : verdictOf(rule, isAsked, held !== null, condition.holds);
    if (verdict === "forIt" && rule.isLast) isAsked = false;
    return { rule, verdict, condition, exception, held: held ?? [] };
  });
}

function verdictOf({ isOn }: Pick<Rule, "isOn">, isAsked: boolean, holds: boolean, isMeant: boolean): RuleVerdict {
  if (!isOn) return "off";
  if (!isAsked) return "notAsked";
  if (holds) return "forIt";
  return isMeant ? "excepted" : "notForIt";
}
