import type { MessageId, TrayId } from "../../core/kernel/ids";
import { rulesThatHold } from "../../core/rules/examine-condition";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { inTransaction } from "../../storage/base/index";
import { factsOf, lockCategoriesForShare, lockConversations } from "../../storage/facts/index";
import { sentMessage } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import { cachedTrays, rulesAt } from "../base/routing-cache";
import { applyRules } from "./apply-rules";
import { testedSample } from "./try-rule";

/**
 * Lets the rules that are asked about what we send act on the conversation of a message that is out. What a rule did after
 * that message it does not do again, so that a job that was cut off can be begun anew.
 */
export async function applySendingRules(deps: Deps, trayId: TrayId, id: MessageId): Promise<void> {
  const conversationId = await inTransaction(deps.db, async (trx) => {
    const asking = { ...deps, db: trx };
    const rules = await rulesAt(asking, trayId, "sending");
    const tray = (await cachedTrays(asking)).find((one) => one.id === trayId);
    const sent = await sentMessage(trx, trayId, id);
    if (tray === undefined || sent === null) return null;
    if (rules.some(({ actions }) => actions.some(({ kind }) => kind === "categorise")))
      await lockCategoriesForShare(trx);
    const [conversation] = await lockConversations(trx, trayId, [sent.conversationId]);
    if (conversation === undefined) return null;
    const [tested] = await testedSample(asking, { tray }, rules, [sent]);
    const known = (await factsOf(trx, [conversation.id])).get(conversation.id) ?? NOTHING_HAPPENED;
    const place = known.messages.find((message) => message.id === id)?.version ?? 0;
    // That it asked for a report was before, and is not all it does.
    const since = known.entries.filter(({ version, effect }) => version > place && effect.kind !== "report-asked");
    const acted = new Set(since.flatMap(({ rule }) => rule?.id ?? []));
    const holding = tested === undefined ? [] : rulesThatHold(rules, tested);
    const due = holding.filter(({ rule }) => !acted.has(rule.id));
    await applyRules(trx, deps, tray, { conversation, known }, { moment: "sending" }, due);
    return due.length > 0 ? conversation.id : null;
  });
  if (conversationId !== null) deps.publishChange({ trayId, conversationId });
}
