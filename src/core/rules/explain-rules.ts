import type { RuleId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type Examined, examineCondition, type Held, whyRuleHolds } from "./examine-condition";
import { endsAsking, isInForce, type Rule } from "./rule";
import type { TestedMessage } from "./test-message";

/**
 * Whether a rule is for a message: it is, it makes an exception of it, it is not, nobody asked it, it is off, it is stopped,
 * as it names what is no more, or it is asked at other times.
 */
export type RuleVerdict = "forIt" | "excepted" | "notForIt" | "notAsked" | "off" | "stopped" | "otherTimes";

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
export function explainRules<
  R extends Pick<Rule, "id" | "isOn" | "isLast" | "condition" | "exception" | "times" | "memberId">,
>(rules: readonly R[], message: TestedMessage, isStopped: (id: RuleId) => boolean, now: Instant): ExplainedRule<R>[] {
  let isAsked = true;
  return rules.map((rule) => {
    const condition = examineCondition(rule.condition, message);
    const exception = rule.exception === null ? null : examineCondition(rule.exception, message);
    const held = whyRuleHolds(rule, message);
    const verdict =
      idleVerdict(rule, isStopped, now) ??
      verdictOf(isAsked || rule.memberId !== undefined, held !== null, condition.holds);
    if (verdict === "forIt" && endsAsking(rule)) isAsked = false;
    return { rule, verdict, condition, exception, held: held ?? [] };
  });
}

function idleVerdict(
  rule: Pick<Rule, "id" | "isOn" | "times">,
  isStopped: (id: RuleId) => boolean,
  now: Instant,
): RuleVerdict | null {
  if (!rule.isOn) return "off";
  if (isStopped(rule.id)) return "stopped";
  return isInForce(rule, "arrival", now) ? null : "otherTimes";
}

function verdictOf(isAsked: boolean, holds: boolean, isMeant: boolean): RuleVerdict {
  if (!isAsked) return "notAsked";
  if (holds) return "forIt";
  return isMeant ? "excepted" : "notForIt";
}
