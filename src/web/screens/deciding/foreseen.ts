import { leadsTo } from "../../../core/docket/leads-to";
import { type CategoryId, type MemberId, trustedId } from "../../../core/kernel/ids";
import type { StandingKind } from "../../../core/standing/standing";
import type { RowView } from "../../server/base/words.server";
import type { Pending, PostedDecision } from "./posted-decision";

/** Where a posted decision leads from a standing; null when it moves nothing. */
export function postedLeadsTo(decision: PostedDecision, from: StandingKind): StandingKind | null {
  switch (decision.kind) {
    case "unread":
      return null;
    case "accept":
      return decision.decisions.reduce<StandingKind | null>((to, one) => postedLeadsTo(one, to ?? from) ?? to, null);
    case "assign":
      return leadsTo({ kind: "assign", ownerId: decision.owner || null }, from);
    case "file":
      return leadsTo({ kind: "file", settle: decision.settle }, from);
    default:
      return leadsTo({ kind: decision.kind }, from);
  }
}

/** A row as it will be once what is under way has been confirmed. */
export function withPending(row: RowView, pending: readonly Pending[]): RowView {
  let shown: RowView = row;
  for (const { decision, rows } of pending) {
    if (!rows.some(({ id }) => id === row.id)) continue;
    const leads = postedLeadsTo(decision, row.standing);
    shown = withDecision(leads === null ? shown : { ...shown, standing: leads }, decision);
  }
  return shown;
}

const withoutCode = (row: RowView, code: string) => ({
  ...row,
  recordCodes: row.recordCodes.filter((one) => one !== code),
});
const withCode = (row: RowView, code: string) => ({ ...row, recordCodes: [...new Set([...row.recordCodes, code])] });

function withDecision(row: RowView, decision: PostedDecision): RowView {
  switch (decision.kind) {
    case "accept":
      return decision.decisions.reduce<RowView>(withDecision, row);
    case "assign":
      return { ...row, ownerId: decision.owner === "" ? null : trustedId<MemberId>(decision.owner) };
    case "categorise": {
      const others = row.categoryIds.filter((id) => id !== decision.category);
      return {
        ...row,
        categoryIds: decision.give ? [...others, trustedId<CategoryId>(decision.category)] : others,
      };
    }
    case "file":
      return decision.message === undefined ? withCode(row, decision.code) : row;
    case "follow": {
      const id = trustedId<MemberId>(decision.member);
      const others = row.followerIds.filter((one) => one !== id);
      return { ...row, followerIds: decision.follows ? [...others, id] : others };
    }
    case "urgency":
      return { ...row, urgency: decision.urgency };
    case "unread":
      return { ...row, unread: true };
    case "unfile":
      return decision.message === undefined ? withoutCode(row, decision.code) : row;
    default:
      return row;
  }
}
