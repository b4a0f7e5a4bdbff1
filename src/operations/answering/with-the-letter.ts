import { expectedBy } from "../../core/deciding/plan-decision";
import type { Effect } from "../../core/journal/entry";
import { type ExpectationId, type FollowUpId, type MessageId, trustedId } from "../../core/kernel/ids";
import type { TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { endOwnDraft, noteTemplateUse, type TemplateUse, templateById } from "../../storage/conversation/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import type { Within } from "../base/deps";
import { saveReplyDefault } from "../reading/reply-defaults";
import type { Answer } from "./answer";

/** What a decision that goes with a message of ours comes to. */
export function effectsAfter(answer: Answer, messageId: MessageId, expectationId: ExpectationId): Effect[] {
  switch (answer.after.kind) {
    case "expect":
      return [
        expectedBy(
          { ...answer.after, expectationId },
          answer.to.map(({ address }) => address),
          messageId,
        ),
      ];
    case "keep":
      return [{ kind: "kept" }];
    case "settle":
      return [{ kind: "settled" }];
    case "wait":
      return [];
  }
}

/** What is promised in a message of ours, as follow-ups of whoever writes it. */
export function followUpsOf(deps: Within, { memberId }: TrayGrant, { promises = [] }: Answer): Effect[] {
  return promises.map(({ text, dueAt }) => {
    const followUpId = trustedId<FollowUpId>(deps.newId());
    return { kind: "follow-up-set", followUpId, forMember: memberId, dueAt, text };
  });
}

/**
 * The categories that a conversation gets with a message of ours, as far as there are such. Asked before it is locked, as
 * whoever removes a category holds the category first.
 */
export async function categoriesWith(trx: Transaction, { tray }: TrayGrant, { categoryIds = [] }: Answer) {
  if (categoryIds.length === 0) return [];
  await lockCategoriesForShare(trx);
  const open = (await categoriesOf(trx, tray.id)).filter(({ id, retired }) => !retired && categoryIds.includes(id));
  return open.map(({ id }) => ({ kind: "categorised", categoryId: id }) as const);
}

/** What comes to an end with a message that goes: the draft that it was; how it was written, and with which template, is remembered. */
export async function endWriting(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  answer: Answer,
  sent: Omit<TemplateUse, "templateId">,
): Promise<void> {
  const { template: templateId = null } = answer;
  const template = templateId === null ? null : await templateById(trx, templateId);
  if (template !== null) await noteTemplateUse(trx, grant, { ...sent, templateId: template.id }, deps.now());
  if (answer.ownDraft != null) await endOwnDraft(trx, grant, answer.ownDraft, deps.now());
  await rememberHabit(trx, grant, answer);
}

// Offered to her the next time.
async function rememberHabit(trx: Transaction, { memberId }: TrayGrant, { to, after }: Answer): Promise<void> {
  const [first] = to;
  if (first === undefined || after.kind === "wait") return;
  const whom = after.kind === "expect" ? (after.whom ?? "any") : "any";
  await saveReplyDefault(trx, memberId, first.address, { after: after.kind, whom });
}
