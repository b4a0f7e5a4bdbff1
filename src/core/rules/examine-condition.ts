import { assertNever } from "../kernel/assert-never";
import { type Condition, type ConditionGroup, isGroup, type Test } from "./condition";
import { endsAsking, type Rule } from "./rule";
import { type Found, type TestedMessage, testerOf } from "./test-message";

/** A condition with each of its parts found true or false of a message. */
export type Examined =
  | { readonly test: Test; readonly holds: boolean; readonly found: Found }
  | { readonly group: ConditionGroup["kind"]; readonly holds: boolean; readonly of: readonly Examined[] };

/** What is true of a message, part by part: all are looked at, also where the whole is decided before. */
export function examineCondition(condition: Condition, message: TestedMessage): Examined {
  if (!isGroup(condition)) {
    const found = testerOf(condition)(message);
    return { test: condition, holds: found !== null, found };
  }
  const of = condition.of.map((one) => examineCondition(one, message));
  return { group: condition.kind, holds: groupHolds(condition.kind, of), of };
}

function groupHolds(kind: ConditionGroup["kind"], of: readonly Examined[]): boolean {
  switch (kind) {
    case "all":
      return of.every(({ holds }) => holds);
    case "any":
      return of.some(({ holds }) => holds);
    case "none":
      return !of.some(({ holds }) => holds);
    default:
      return assertNever(kind);
  }
}

/** A test that made a condition hold, with what it found. */
export type Held = { readonly test: Test; readonly found: string };

// Those under `none` made it hold by finding nothing.
function* whatHeld(examined: Examined): Generator<Held> {
  if ("test" in examined) {
    if (examined.found !== null) yield { test: examined.test, found: examined.found };
  } else if (examined.group !== "none" && examined.holds) {
    for (const one of examined.of) if (one.holds) yield* whatHeld(one);
  }
}

/** A rule that is for a message, and what of the message it was for. */
export type RuleThatHolds<R extends ExaminedRule = Rule> = { readonly rule: R; readonly held: readonly Held[] };

type ExaminedRule = Pick<Rule, "isOn" | "isLast" | "condition" | "exception" | "memberId">;

/** The rules that are for a message, in their order, up to the first after which none is asked. */
export function rulesThatHold<R extends ExaminedRule>(rules: readonly R[], message: TestedMessage): RuleThatHolds<R>[] {
  const holding: RuleThatHolds<R>[] = [];
  let isEnded = false;
  for (const rule of rules) {
    // What a member wants to hear of is nothing that a rule of the tray ends.
    if (!rule.isOn || (isEnded && rule.memberId === undefined)) continue;
    const held = whyRuleHolds(rule, message);
    if (held === null) continue;
    holding.push({ rule, held });
    isEnded ||= endsAsking(rule);
  }
  return holding;
}

/** What of a message a rule is for; null when it is not for it. */
export function whyRuleHolds(
  { condition, exception }: Pick<Rule, "condition" | "exception">,
  message: TestedMessage,
): readonly Held[] | null {
  const examined = examineCondition(condition, message);
  if (!examined.holds || (exception !== null && examineCondition(exception, message).holds)) return null;
  return [...whatHeld(examined)];
}
