import { type BatchId, type ConversationId, trustedId } from "../../core/kernel/ids";
import { boundsOf } from "../../core/rules/bounds";
import { whyRuleHolds } from "../../core/rules/examine-condition";
import { endsAsking } from "../../core/rules/rule";
import type { Tray } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { conversationsAsTheyAre, lockCategoriesForShare, lockConversations } from "../../storage/facts/index";
import { actedOnSince, type KeptRule, openWithin, samplesIn } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import { cachedTrays, rulesAt } from "../base/routing-cache";
import { carryOut } from "../changes/change-conversations";
import { planRuleOver } from "./plan-rule-over";
import { testedSample } from "./try-rule";

const STEP = 500;

/**
 * Lets the rules that are asked while time passes act on what is open in all trays. A rule acts once on a conversation for
 * as long as that stands where it stands, also where somebody took it back.
 */
export async function applyPassingRules(deps: Deps): Promise<void> {
  for (const tray of await cachedTrays(deps)) {
    const ended = new Set<ConversationId>();
    for (const rule of await rulesAt(deps, tray.id, "passing")) await askAboutOpen(deps, tray, rule, ended);
  }
}

// `ended` are those about which an earlier rule was the last to be asked.
async function askAboutOpen(deps: Deps, tray: Tray, rule: KeptRule, ended: Set<ConversationId>): Promise<void> {
  const bounds = boundsOf(rule.condition);
  let after: ConversationId | null = null;
  for (;;) {
    const open: ConversationId[] = await openWithin(deps.db, tray.id, bounds, { now: deps.now(), after, limit: STEP });
    const asked = open.filter((id) => rule.memberId !== undefined || !ended.has(id));
    const acted = await actedOnSince(deps.db, rule.id, asked);
    // Whether a last one holds matters to the others although it has acted already.
    const samples = await samplesIn(
      deps.db,
      tray.id,
      asked.filter((id) => endsAsking(rule) || !acted.has(id)),
      "passing",
    );
    const tested = await testedSample(deps, { tray }, [rule], samples);
    const holding = samples
      .filter((_, at) => tested[at] !== undefined && whyRuleHolds(rule, tested[at]) !== null)
      .map(({ conversationId }) => conversationId);
    if (endsAsking(rule)) for (const id of holding) ended.add(id);
    await act(
      deps,
      tray,
      rule,
      holding.filter((id) => !acted.has(id)),
    );
    after = open.at(-1) ?? null;
    if (open.length < STEP) return;
  }
}

// What holds and changes nothing is asked about each minute: nobody is to wait for that.
async function wouldChange(deps: Deps, tray: Tray, rule: KeptRule, ids: readonly ConversationId[]): Promise<boolean> {
  const plans = await inTransaction(deps.db, async (trx) =>
    planRuleOver(trx, deps, { tray }, rule, await conversationsAsTheyAre(trx, tray.id, ids)),
  );
  return plans.some(({ effects }) => effects.length > 0);
}

async function act(deps: Deps, tray: Tray, rule: KeptRule, ids: readonly ConversationId[]): Promise<void> {
  if (ids.length === 0 || !(await wouldChange(deps, tray, rule, ids))) return;
  const changed = await inTransaction(deps.db, async (trx) => {
    if (rule.actions.some(({ kind }) => kind === "categorise")) await lockCategoriesForShare(trx);
    const held = await lockConversations(trx, tray.id, ids);
    // Asked again now that nobody else can change them.
    const acted = await actedOnSince(trx, rule.id, ids);
    const plans = await planRuleOver(
      trx,
      deps,
      { tray },
      rule,
      held.filter(({ id }) => !acted.has(id)),
    );
    const changes = plans.filter(({ effects }) => effects.length > 0);
    await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
    return changes.map(({ conversation }) => conversation.id);
  });
  for (const conversationId of changed) deps.publishChange({ trayId: tray.id, conversationId });
}
