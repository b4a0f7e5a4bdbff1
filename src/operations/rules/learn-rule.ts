import type { ConversationId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type LearnedAction, learnActions, MAX_EXAMPLES } from "../../core/rule-learning/learn-actions";
import { learnConditions } from "../../core/rule-learning/learn-condition";
import { compareRule } from "../../core/rules/compare-rule";
import type { Condition } from "../../core/rules/condition";
import { countByMonth, type MonthCount } from "../../core/time/count-by-month";
import type { TrayGrant } from "../../storage/access/index";
import { type FirstArrival, firstArrivals } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { ruleNamesOf, rulesAsWritten } from "./rule-names";

const LEARNED_FROM = 20_000;

/** A condition that the examples have in common. */
type RuleProposal = {
  readonly condition: Condition;
  /** How many of the examples it takes, and how many conversations in all. */
  readonly takes: number;
  readonly count: number;
  /** How many of those people treated otherwise than a rule with the proposed actions would. */
  readonly otherwise: number;
  readonly months: readonly MonthCount[];
};

/** What was learned from some conversations. */
export type LearnedRule = {
  readonly proposals: readonly RuleProposal[];
  /** What people did with most of the examples, and with how many of those that the first proposal takes. */
  readonly actions: readonly LearnedAction[];
  readonly examples: readonly LearnedFrom[];
  /** What somebody said is not meant, although it is like them. */
  readonly notMeant: readonly LearnedFrom[];
};

type LearnedFrom = {
  readonly id: ConversationId;
  readonly who: string;
  readonly subject: string;
  readonly at: Instant;
};

/**
 * Learns from chosen conversations which rule would be for mail like theirs, and not for others that somebody pointed at;
 * for those who lead the tray.
 */
export async function learnRule(
  deps: Deps,
  grant: TrayGrant,
  ids: readonly ConversationId[],
  notMeantIds: readonly ConversationId[] = [],
): Promise<Result<LearnedRule, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const chosen = new Set(ids.slice(0, MAX_EXAMPLES));
  const pointedAt = new Set(notMeantIds.filter((id) => !chosen.has(id)).slice(0, MAX_EXAMPLES));
  const [examples, notMeant, newest] = await Promise.all([
    firstArrivals(deps.db, grant, { ids: [...chosen] }),
    firstArrivals(deps.db, grant, { ids: [...pointedAt] }),
    firstArrivals(deps.db, grant, { newest: LEARNED_FROM }),
  ]);
  if (examples.length === 0) return err({ kind: "no-such-conversation" });
  const rest = newest.filter(({ conversationId: id }) => !chosen.has(id) && !pointedAt.has(id));
  // They come first, so that their places are known.
  const others = [...notMeant, ...rest];
  const actions = learnActions(examples.map(leftAs), []).map(({ action }) => action);
  const names = await ruleNamesOf(deps, grant.tray, grant, []);
  const compared = others.map(({ conversation }) => compareRule(actions, conversation, names).is);
  const treatedAlike = actions.length === 0 ? null : placesWhere(compared, (is) => is === "same");
  const learned = learnConditions({ examples, others, treatedAlike, notMeant: [...notMeant.keys()] });
  const proposals = learned.map(({ condition, takes, others: places }) => ({
    condition,
    takes,
    count: takes + places.length,
    otherwise: places.filter((place) => compared[place] === "otherwise").length,
    months: countByMonth(
      [...examples, ...places.flatMap((place) => others[place] ?? [])].map(({ receivedAt }) => receivedAt),
      grant.tray.timeZone,
    ),
  }));
  const alike = (learned[0]?.others ?? []).flatMap((place) => others[place] ?? []);
  const learnedActions = learnActions(examples.map(leftAs), [...examples, ...alike].map(leftAs));
  const [written] = await rulesAsWritten(deps, grant, [
    { condition: { kind: "every" } as Condition, exception: null, actions: learnedActions.map(({ action }) => action) },
  ]);
  return ok({
    proposals,
    actions: learnedActions.map(({ byHand, action }, at) => ({ byHand, action: written?.actions[at] ?? action })),
    examples: examples.map(learnedFrom),
    notMeant: notMeant.map(learnedFrom),
  });
}

function learnedFrom({ conversationId: id, fromName, from, subject, receivedAt: at }: FirstArrival): LearnedFrom {
  return { id, who: fromName || (from ?? ""), subject, at };
}

const leftAs = ({ conversation }: FirstArrival) => conversation;

function placesWhere<T>(all: readonly T[], holds: (one: T) => boolean): number[] {
  return all.flatMap((one, place) => (holds(one) ? [place] : []));
}
