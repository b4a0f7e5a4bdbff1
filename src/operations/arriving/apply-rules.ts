import { inCharge } from "../../core/cover/covering";
import { type BatchId, type CategoryId, type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { MailMessage } from "../../core/message/mail-message";
import { listIdIn } from "../../core/message/ways-to-leave";
import type { RuledMessage } from "../../core/rules/match-rule";
import { type Givable, planRule, type RuleThatHolds, rulesThatHold } from "../../core/rules/plan-rules";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { membersWithRoles, type Tray } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { categoriesOf, factsOf, lockCategoriesForShare, lockConversations } from "../../storage/facts/index";
import { recordsByIds } from "../../storage/records/index";
import type { Asking, Within } from "../base/deps";
import { cachedRules, cachedTimesOff } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import { carryOut } from "../changes/change-conversations";
import type { Incoming } from "./to-new-message";

/** The rules of a tray that are for a message that arrives; none for history, and for what we wrote elsewhere. */
export async function rulesFor(deps: Asking, tray: Tray, incoming: Incoming): Promise<RuleThatHolds[]> {
  const { message, isHistory, imported } = incoming;
  const isOurs = imported && message.from !== null && tray.addresses.includes(message.from.address);
  if (isHistory || isOurs) return [];
  return rulesThatHold(await cachedRules(deps, tray.id), asRuled(message));
}

function asRuled(message: MailMessage): RuledMessage {
  return {
    from: message.from?.address ?? null,
    to: [...message.to, ...message.cc].map(({ address }) => address),
    subject: message.subject,
    ownText: message.ownText,
    list: message.list === null ? null : listIdIn(message.list),
    hasAttachment: message.attachments.some(({ inline }) => !inline),
  };
}

/** The same for several, with what they give held until the transaction ends: before any conversation, as everybody does. */
export async function lockRulesFor(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  batch: readonly Incoming[],
): Promise<RuleThatHolds[][]> {
  const all = await Promise.all(batch.map((incoming) => rulesFor({ ...deps, db: trx }, tray, incoming)));
  if (all.flat().some(({ rule }) => rule.actions.categoryIds.length > 0)) await lockCategoriesForShare(trx);
  return all;
}

/** Lets rules act on the conversation that a message came into, one after the other, each a step of its own in the journal. */
export async function applyRules(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  { id, starts }: { readonly id: ConversationId; readonly starts: boolean },
  rules: readonly RuleThatHolds[],
): Promise<void> {
  if (rules.length === 0) return;
  const givable = await givableIn(trx, deps, tray, rules);
  for (const { rule, why } of rules) {
    const [conversation] = await lockConversations(trx, tray.id, [id]);
    if (conversation === undefined) throw new Error(`conversation ${id} went away under its rules`);
    const known = (await factsOf(trx, [id])).get(id) ?? NOTHING_HAPPENED;
    const effects = planRule(rule, known, givable, starts);
    const mark = { id: rule.id, name: rule.name, why: writtenDown(why) };
    await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), [{ conversation, known, effects }], mark);
  }
}

async function givableIn(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  rules: readonly RuleThatHolds[],
): Promise<Givable> {
  const wanted = rules.flatMap(({ rule }) => rule.actions.recordId ?? []);
  const [categories, records, members] = [
    await categoriesOf(trx, tray.id),
    await recordsByIds(trx, null, [...new Set(wanted)]),
    await membersWithRoles(trx, tray.id),
  ];
  const given = new Set<CategoryId>(categories.filter(({ retired }) => !retired).map(({ id }) => id));
  const filed = new Set<RecordId>(records.filter(({ closed }) => !closed).map(({ id }) => id));
  const deciding = new Set(members.filter(({ role }) => role !== "reader").map(({ id }) => id));
  const now = deps.now();
  const timesOff = await cachedTimesOff({ ...deps, db: trx });
  return {
    isCategory: (id) => given.has(id),
    isRecord: (id) => filed.has(id),
    inCharge: (id) => {
      const who = inCharge(id, { trayId: tray.id, recordIds: [] }, now, timesOff) ?? id;
      return deciding.has(who) ? who : null;
    },
  };
}
