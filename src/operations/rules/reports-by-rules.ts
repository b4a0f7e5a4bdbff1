import { type BatchId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import { rulesThatHold } from "../../core/rules/examine-condition";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Transaction } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { sentMessage } from "../../storage/rules/index";
import type { Within } from "../base/deps";
import { cachedTrays, rulesAt } from "../base/routing-cache";
import { carryOut } from "../changes/change-conversations";
import { markOf } from "./apply-rules";
import { ruleNamesOf } from "./rule-names";
import { testedSample } from "./try-rule";

/**
 * Whether a rule asks that it be reported what becomes of a message of ours, which is about to go; the first one that does
 * says so in the journal.
 */
export async function isReportAsked(
  trx: Transaction,
  deps: Within,
  { id, trayId }: { readonly id: MessageId; readonly trayId: TrayId },
): Promise<boolean> {
  const asking = { ...deps, db: trx };
  const rules = await rulesAt(asking, trayId, "sending");
  if (!rules.some(({ actions }) => actions.some(({ kind }) => kind === "ask-report"))) return false;
  const tray = (await cachedTrays(asking)).find((one) => one.id === trayId);
  const sent = await sentMessage(trx, trayId, id);
  if (tray === undefined || sent === null) return false;
  const [tested] = await testedSample(asking, { tray }, rules, [sent]);
  const holding = tested === undefined ? [] : rulesThatHold(rules, tested);
  const first = holding.find(({ rule }) => rule.actions.some(({ kind }) => kind === "ask-report"));
  if (first === undefined) return false;
  const [conversation] = await lockConversations(trx, trayId, [sent.conversationId]);
  if (conversation === undefined) return false;
  const known = (await factsOf(trx, [conversation.id])).get(conversation.id) ?? NOTHING_HAPPENED;
  const isSaid = known.entries.some(({ effect }) => effect.kind === "report-asked" && effect.messageId === id);
  if (isSaid) return true;
  const names = await ruleNamesOf(asking, tray, null, [first.rule]);
  const change = { conversation, known, effects: [{ kind: "report-asked", messageId: id } as const] };
  const mark = markOf(first.rule, first.held, names);
  await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), [{ ...change, rule: mark }]);
  return true;
}
