import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import { type EmailAddress, readEmailAddress, withoutSubaddress } from "../kernel/email-address";
import { type ConditionProblem, conditionProblems } from "./check-condition";
import { ON_ARRIVAL, type Rule, type RuleAction, type RuleMoment } from "./rule";

const said = saidOf(rulesTexts);

/** What is wrong with an action, by its place. */
type ActionProblem = { readonly at: number; readonly problem: Said };

/** What can be wrong with a rule, by what it is about; `actions` that are none at all are wrong as a whole. */
export type RuleProblems = {
  readonly name?: Said;
  readonly condition?: readonly ConditionProblem[];
  readonly exception?: readonly ConditionProblem[];
  readonly actions?: Said | readonly ActionProblem[];
  readonly until?: Said;
};

const MAX_NAME = 60;
const MAX_ACTIONS = 20;
const MAX_TEXT = 2_000;
const MAX_WORKING_DAYS = 260;
const MAX_DAYS = 365;
/** What goes out to somebody, which cannot be called back. */
const SENDING: ReadonlySet<RuleAction["kind"]> = new Set(["answer", "forward", "redirect"]);

/** What is wrong with a rule among the others of its tray; nothing when it can stand. `ours` are all addresses of the installation. */
export function checkRule(
  rule: Omit<Rule, "id">,
  others: readonly Pick<Rule, "name">[],
  ours: readonly EmailAddress[] = [],
): RuleProblems {
  const name = nameProblem(rule.name.trim(), others);
  const { moment } = rule.times ?? ON_ARRIVAL;
  // What only keeps others from being asked does that.
  const actions = rule.isLast && rule.actions.length === 0 ? null : actionsProblem(rule.actions, moment, ours);
  return {
    ...(name === null ? {} : { name }),
    ...whichProblems(rule),
    ...(actions === null ? {} : { actions }),
    ...(isBackwards(rule) ? { until: said("rules.endsBeforeItBegins") } : {}),
  };
}

/** What is wrong with which messages a rule is for. */
export function whichProblems(
  rule: Pick<Rule, "condition" | "exception">,
): Pick<RuleProblems, "condition" | "exception"> {
  const condition = conditionProblems(rule.condition);
  const exception = exceptionProblems(rule);
  return {
    ...(condition.length === 0 ? {} : { condition }),
    ...(exception.length === 0 ? {} : { exception }),
  };
}

function isBackwards({ times = ON_ARRIVAL }: Pick<Rule, "times">): boolean {
  return times.from !== null && times.until !== null && times.until <= times.from;
}

function nameProblem(name: string, others: readonly Pick<Rule, "name">[]): Said | null {
  if (name === "") return said("rules.giveTheRuleAName");
  if (name.length > MAX_NAME) return said("rules.aNameHasAtMost", { most: MAX_NAME });
  const isTaken = others.some((other) => other.name.toLowerCase() === name.toLowerCase());
  return isTaken ? said("rules.anotherRuleHasThatName") : null;
}

function exceptionProblems({ condition, exception }: Pick<Rule, "condition" | "exception">): ConditionProblem[] {
  if (exception === null) return [];
  const isAlways = exception.kind === "every" || JSON.stringify(exception) === JSON.stringify(condition);
  return isAlways ? [{ path: "", problem: said("rules.exceptsAll") }] : conditionProblems(exception);
}

function actionsProblem(
  actions: readonly RuleAction[],
  moment: RuleMoment,
  ours: readonly EmailAddress[],
): Said | readonly ActionProblem[] | null {
  if (actions.length === 0) return said("rules.sayWhatItDoes");
  if (actions.length > MAX_ACTIONS) return said("rules.atMostActions", { most: MAX_ACTIONS });
  const problems = actions.flatMap((action, at) => {
    const problem = actionProblem(action, moment, ours);
    return problem === null ? [] : [{ at, problem }];
  });
  return problems.length === 0 ? null : problems;
}

function actionProblem(action: RuleAction, moment: RuleMoment, ours: readonly EmailAddress[]): Said | null {
  if (action.kind === "hold" && moment !== "arrival") return said("rules.holdsOnlyWhatComes");
  if ("workingDays" in action && !(action.workingDays >= 1 && action.workingDays <= MAX_WORKING_DAYS))
    return said("rules.workingDaysFromTo", { most: MAX_WORKING_DAYS });
  if (SENDING.has(action.kind) && moment !== "arrival") return said("rules.sendsOnlyForWhatComes");
  if (action.kind === "answer" && action.days !== null && !(action.days >= 1 && action.days <= MAX_DAYS))
    return said("rules.daysFromTo", { most: MAX_DAYS });
  if (action.kind === "forward" || action.kind === "redirect") return recipientProblem(action.to, ours);
  if (!("text" in action)) return null;
  if (action.text.trim() === "") return said("rules.enterAText");
  return action.text.length > MAX_TEXT ? said("rules.atMostCharacters", { most: MAX_TEXT }) : null;
}

function recipientProblem(to: EmailAddress, ours: readonly EmailAddress[]): Said | null {
  const address = readEmailAddress(to);
  if (address === null) return said("rules.isNoAddress");
  return ours.includes(address) || ours.includes(withoutSubaddress(address)) ? said("rules.comesBackToUs") : null;
}
