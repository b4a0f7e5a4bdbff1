import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import { type EmailAddress, readEmailAddress, withoutSubaddress } from "../kernel/email-address";
import type { MemberId } from "../kernel/ids";
import { type ConditionProblem, conditionProblems } from "./check-condition";
import { namedBy } from "./named-by";
import { ON_ARRIVAL, OWN_ACTIONS, type Rule, type RuleAction, type RuleActionKind, type RuleMoment } from "./rule";

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
  /** That it is asked in all trays. */
  readonly everywhere?: Said;
};

const MAX_NAME = 60;
const MAX_ACTIONS = 20;
const MAX_TEXT = 2_000;
const MAX_WORKING_DAYS = 260;
const MAX_DAYS = 365;

// What goes out to somebody cannot be called back: that is for what comes, which nobody waits for.
const sends = { at: ["arrival"], problem: said("rules.sendsOnlyForWhatComes") } as const;
/** What is not done at every moment. */
const MOMENTS: Readonly<
  Partial<Record<RuleActionKind, { readonly at: readonly RuleMoment[]; readonly problem: Said }>>
> = {
  hold: { at: ["arrival"], problem: said("rules.holdsOnlyWhatComes") },
  remind: { at: ["sending", "passing"], problem: said("rules.remindsOnlyLater") },
  "ask-report": { at: ["sending"], problem: said("rules.reportsOnlyForWhatIsSent") },
  answer: sends,
  "answer-with": sends,
  forward: sends,
  redirect: sends,
};

/** What is wrong with a rule among the others of its tray; nothing when it can stand. `ours` are all addresses of the installation. */
export function checkRule(
  rule: Omit<Rule, "id">,
  others: readonly Pick<Rule, "name">[],
  ours: readonly EmailAddress[] = [],
): RuleProblems {
  const name = nameProblem(rule.name.trim(), others);
  const { moment } = rule.times ?? ON_ARRIVAL;
  // What only keeps others from being asked does that.
  const actions = rule.isLast && rule.actions.length === 0 ? null : actionsProblem(rule, moment, ours);
  return {
    ...(name === null ? {} : { name }),
    ...whichProblems(rule),
    ...(actions === null ? {} : { actions }),
    ...(isBackwards(rule) ? { until: said("rules.endsBeforeItBegins") } : {}),
    ...(namesOneTray(rule) ? { everywhere: said("rules.namesOneTray") } : {}),
  };
}

/** What is wrong with which messages a rule is for. */
export function whichProblems(
  rule: Pick<Rule, "condition" | "exception" | "times">,
): Pick<RuleProblems, "condition" | "exception"> {
  const { moment } = rule.times ?? ON_ARRIVAL;
  const condition = conditionProblems(rule.condition, moment);
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

// Other trays have other categories, rounds, groups, contacts and templates.
function namesOneTray(rule: Pick<Rule, "condition" | "exception" | "actions" | "isEverywhere">): boolean {
  const { members: _, records: __, ...ofOneTray } = namedBy([rule]);
  return rule.isEverywhere === true && Object.values(ofOneTray).some((named) => named.length > 0);
}

function actionsProblem(
  { actions, memberId }: Pick<Rule, "actions" | "memberId">,
  moment: RuleMoment,
  ours: readonly EmailAddress[],
): Said | readonly ActionProblem[] | null {
  if (actions.length === 0) return said("rules.sayWhatItDoes");
  if (actions.length > MAX_ACTIONS) return said("rules.atMostActions", { most: MAX_ACTIONS });
  const problems = actions.flatMap((action, at) => {
    const problem = ownProblem(action, memberId) ?? actionProblem(action, moment, ours);
    return problem === null ? [] : [{ at, problem }];
  });
  return problems.length === 0 ? null : problems;
}

function ownProblem(action: RuleAction, memberId: MemberId | undefined): Said | null {
  if (memberId === undefined) return null;
  const whose = action.kind === "follow-up" ? action.forMember : "memberId" in action ? action.memberId : null;
  return OWN_ACTIONS.includes(action.kind) && whose === memberId ? null : said("rules.onlyForYourself");
}

function actionProblem(action: RuleAction, moment: RuleMoment, ours: readonly EmailAddress[]): Said | null {
  const meant = MOMENTS[action.kind];
  if (meant !== undefined && !meant.at.includes(moment)) return meant.problem;
  if ("workingDays" in action && !(action.workingDays >= 1 && action.workingDays <= MAX_WORKING_DAYS))
    return said("rules.workingDaysFromTo", { most: MAX_WORKING_DAYS });
  if ("days" in action && action.days !== null && !(action.days >= 1 && action.days <= MAX_DAYS))
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
