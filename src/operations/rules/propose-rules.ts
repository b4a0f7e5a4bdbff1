import { type NotificationId, type RuleProposalId, type TrayId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { findRoutines, type Routine } from "../../core/rule-learning/find-routines";
import { MAX_EXAMPLES } from "../../core/rule-learning/learn-actions";
import { whyRuleHolds } from "../../core/rules/examine-condition";
import { isInForce } from "../../core/rules/rule";
import { membersWithRoles, type Tray, type TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { addNotifications, type NewNotification } from "../../storage/conversation/index";
import {
  addRuleProposal,
  answerRuleProposal,
  keptKey,
  type OpenProposal,
  openRuleProposals,
  passedSince,
  proposedBefore,
  rulesOf,
  samplesIn,
  takeTurnToPropose,
} from "../../storage/rules/index";
import type { Deps, Within } from "../base/deps";
import { cachedTrays } from "../base/routing-cache";
import type { Refusal } from "../refusals/refusal";
import { testedSample } from "./try-rule";

const LOOKS_BACK = 30 * DAY;
const LOOKS_EVERY = DAY;
/** More often than this nobody is asked anything. */
const PROPOSES_EVERY = 7 * DAY;

/** Looks in all trays for what is put away unread again and again, and proposes a rule for the most of it: at most one a week. */
export async function proposeRules(deps: Deps): Promise<void> {
  for (const tray of await cachedTrays(deps)) {
    const now = deps.now();
    const isDue = await inTransaction(deps.db, (trx) =>
      takeTurnToPropose(trx, tray.id, { now, since: later(now, -LOOKS_EVERY) }),
    );
    if (isDue) await proposeRule(deps, tray);
  }
}

async function proposeRule(deps: Deps, tray: Tray): Promise<void> {
  const now = deps.now();
  const before = await proposedBefore(deps.db, tray.id);
  const isTooSoon = [...before.values()].some((at) => at > later(now, -PROPOSES_EVERY));
  if (isTooSoon || (await openRuleProposals(deps.db, tray.id)).length > 0) return;
  const passed = await passedSince(deps.db, tray.id, later(now, -LOOKS_BACK));
  for (const routine of findRoutines(passed)) {
    if (before.has(keptKey(routine.key)) || (await isRuled(deps, tray, routine))) continue;
    const { key, putAway, ids } = routine;
    const id = trustedId<RuleProposalId>(deps.newId());
    const made = { id, trayId: tray.id, putAway, count: ids.length, madeAt: now };
    await inTransaction(deps.db, async (trx) => {
      await addRuleProposal(trx, key, { ...made, conversationIds: ids.slice(0, MAX_EXAMPLES) });
      await addNotifications(trx, await toldToLeads(deps, trx, made));
    });
    deps.publishChange({ trayId: tray.id, conversationId: null });
    return;
  }
}

type Made = Pick<OpenProposal, "id" | "count"> & { readonly trayId: TrayId };

async function toldToLeads(deps: Within, trx: Transaction, { id, trayId, count }: Made): Promise<NewNotification[]> {
  const leads = (await membersWithRoles(trx, trayId)).filter(({ role }) => role === "lead");
  const told = { trayId, conversationId: null, at: deps.now(), by: null, event: "proposal", count, words: "" } as const;
  return leads.map(({ id: memberId }) => {
    return { ...told, id: trustedId<NotificationId>(deps.newId()), memberId, about: `proposal:${id}` };
  });
}

// A rule may have been made since; what came before it was still put away by hand.
async function isRuled(deps: Deps, tray: Tray, { putAway, ids }: Routine): Promise<boolean> {
  const rules = (await rulesOf(deps.db, tray.id)).filter(
    (rule) => rule.isOn && isInForce(rule, "arrival", deps.now()) && rule.actions.some(({ kind }) => kind === putAway),
  );
  if (rules.length === 0) return false;
  const sample = await samplesIn(deps.db, tray.id, ids.slice(0, MAX_EXAMPLES), "arrival");
  const tested = await testedSample(deps, { tray }, rules, sample);
  const ruled = tested.filter((message) => rules.some((rule) => whyRuleHolds(rule, message) !== null));
  return ruled.length * 2 >= tested.length;
}

/** What is proposed in a tray; for those who lead it, as nobody else could accept it. */
export async function getRuleProposals(deps: Deps, grant: TrayGrant): Promise<readonly OpenProposal[]> {
  return grant.role === "lead" ? openRuleProposals(deps.db, grant.tray.id) : [];
}

/** Says that a proposal was answered, as somebody declined it for good or made the rule; or that it is to be answered still. */
export async function endRuleProposal(
  deps: Deps,
  grant: TrayGrant,
  id: RuleProposalId,
  isAnswered = true,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const found = await answerRuleProposal(deps.db, grant.tray.id, id, isAnswered ? deps.now() : null);
  return found ? ok(null) : err({ kind: "no-such", what: "rule" });
}
