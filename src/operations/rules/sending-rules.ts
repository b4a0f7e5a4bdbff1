import { rulesThatHold } from "../../core/rules/examine-condition";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Transaction } from "../../storage/base/index";
import { factsOf, lockCategoriesForShare, lockConversations } from "../../storage/facts/index";
import type { OutgoingMessage } from "../../storage/mail/index";
import { sentMessage } from "../../storage/rules/index";
import type { Within } from "../base/deps";
import { cachedTrays, rulesAt } from "../base/routing-cache";
import { applyRules } from "./apply-rules";
import { testedSample } from "./try-rule";

/** Lets the rules that are asked about what we send act on the conversation of a message that a person sent and that is out now. */
export async function applySendingRules(
  trx: Transaction,
  deps: Within,
  { id, trayId, conversationId, isAutomatic }: OutgoingMessage,
): Promise<void> {
  const asking = { ...deps, db: trx };
  const rules = isAutomatic ? [] : await rulesAt(asking, trayId, "sending");
  if (rules.length === 0) return;
  if (rules.some(({ actions }) => actions.some(({ kind }) => kind === "categorise"))) await lockCategoriesForShare(trx);
  const [conversation] = await lockConversations(trx, trayId, [conversationId]);
  const tray = (await cachedTrays(asking)).find((one) => one.id === trayId);
  const sent = await sentMessage(trx, trayId, id);
  if (conversation === undefined || tray === undefined || sent === null) return;
  const [tested] = await testedSample(asking, { tray }, rules, [sent]);
  const holding = tested === undefined ? [] : rulesThatHold(rules, tested);
  const known = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
  await applyRules(trx, deps, tray, { conversation, known }, { moment: "sending" }, holding);
}
