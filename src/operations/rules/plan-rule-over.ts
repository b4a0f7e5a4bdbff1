import type { ConversationId } from "../../core/kernel/ids";
import { type Held, whyRuleHolds } from "../../core/rules/examine-condition";
import { planRule } from "../../core/rules/plan-rules";
import { ON_ARRIVAL, type Rule } from "../../core/rules/rule";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { factsOf, type HeldConversation } from "../../storage/facts/index";
import { samplesIn } from "../../storage/rules/index";
import type { Within } from "../base/deps";
import type { ChangePlan } from "../changes/change-conversations";
import { givableIn, hadBeforeIn, markOf } from "./apply-rules";
import { ruleNamesOf } from "./rule-names";
import { testedSample } from "./try-rule";

/** What a rule does to conversations that are there: to those with a message that it is for. */
export async function planRuleOver(
  trx: Transaction,
  deps: Within,
  { tray }: Pick<TrayGrant, "tray">,
  rule: Rule,
  held: readonly HeldConversation[],
): Promise<ChangePlan[]> {
  const { moment } = rule.times ?? ON_ARRIVAL;
  const asking = { ...deps, db: trx };
  const ids = held.map(({ id }) => id);
  const arrivals = await samplesIn(trx, tray.id, ids, moment);
  const tested = await testedSample(asking, { tray }, [rule], arrivals);
  const reached = new Map<ConversationId, { why: readonly Held[] | null; isWhole: boolean }>();
  for (const [at, { conversationId }] of arrivals.entries()) {
    const facts = tested[at];
    const why = facts === undefined ? null : whyRuleHolds(rule, facts);
    const before = reached.get(conversationId) ?? { why: null, isWhole: true };
    reached.set(conversationId, { why: before.why ?? why, isWhole: before.isWhole && why !== null });
  }
  const facts = await factsOf(trx, ids);
  const givable = await givableIn(trx, deps, tray, [rule]);
  const had = await hadBeforeIn(trx, tray, [rule], ids);
  const names = await ruleNamesOf(asking, tray, null, [rule]);
  return held.flatMap((conversation): ChangePlan[] => {
    const { why = null, isWhole = false } = reached.get(conversation.id) ?? {};
    if (why === null) return [];
    const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
    // What has something else in it besides is under way, and not put away.
    const occasion = moment === "arrival" ? ({ moment, starts: isWhole } as const) : { moment };
    const effects = planRule(rule, known, { ...givable, hadBefore: had(conversation.id) }, occasion);
    return [{ conversation, known, effects, rule: markOf(rule, why, names) }];
  });
}
