import { type Decision, planDecision } from "../core/docket/plan-decision";
import type { MemberId } from "../core/kernel/ids";
import type { Result } from "../core/kernel/result";
import { categoriesOf, keepCategories, membersOfTray, recordsByIds, type TrayGrant } from "../storage/index";
import { changeConversations, type Done, type Target } from "./change-conversations";
import type { Deps } from "./deps";
import type { Refusal } from "./refusal";

/** Carries a member's decision out on conversations of a tray, as one batch that can be undone. */
export async function decide(
  deps: Deps,
  grant: TrayGrant,
  target: Target,
  decision: Decision,
): Promise<Result<Done, Refusal>> {
  return changeConversations(
    deps,
    grant,
    target,
    (facts) => planDecision(decision, facts),
    async (trx) => {
      if (decision.kind === "categorise") await keepCategories(trx);
      return decisionRefusal({ ...deps, db: trx }, grant, decision);
    },
  );
}

/** Why a decision cannot be about any conversation of a tray; null when it can. */
export async function decisionRefusal(deps: Deps, grant: TrayGrant, decision: Decision): Promise<Refusal | null> {
  switch (decision.kind) {
    case "assign":
      return decision.ownerId === null ? null : memberRefusal(deps, grant, decision.ownerId);
    case "categorise":
      return categoryRefusal(deps, grant, decision);
    case "file":
    case "unfile":
      return (await recordsByIds(deps.db, [decision.recordId])).length === 1
        ? null
        : { kind: "no-such", what: "record" };
    case "rest":
    case "expect":
      return decision.until === null || decision.until > deps.now() ? null : { kind: "date-is-past" };
    case "follow-up":
      if (decision.dueAt !== null && decision.dueAt <= deps.now()) return { kind: "date-is-past" };
      return memberRefusal(deps, grant, decision.forMember);
    default:
      return null;
  }
}

async function categoryRefusal(
  deps: Deps,
  grant: TrayGrant,
  { categoryId, give }: Extract<Decision, { kind: "categorise" }>,
): Promise<Refusal | null> {
  const category = (await categoriesOf(deps.db, grant.tray.id)).find(({ id }) => id === categoryId);
  if (category === undefined) return { kind: "no-such", what: "category" };
  return give && category.retired ? { kind: "category-retired", name: category.name } : null;
}

async function memberRefusal(deps: Deps, grant: TrayGrant, memberId: MemberId): Promise<Refusal | null> {
  const members = await membersOfTray(deps.db, grant.tray.id);
  return members.some(({ id }) => id === memberId) ? null : { kind: "no-such", what: "member" };
}
