import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Proposal } from "./propose";

/** What can be decided at a moment, as far as proposals are about it. */
export type Deciding = {
  readonly ownerId: MemberId | null;
  /** Whether somebody may own what is in the tray. */
  readonly mayOwn: (id: MemberId) => boolean;
  /** Who answers for an owner now: the owner, or whoever covers for them; null for nobody. */
  readonly inCharge: (id: MemberId) => MemberId | null;
  /** Whether a record takes what is filed, and whoever asks may know of it. */
  readonly takes: (id: RecordId) => boolean;
  /** Whether a category is given to anything more. */
  readonly isGiven: (id: CategoryId) => boolean;
};

/** Of some proposals those that can be accepted, in their order; whoever covers for an owner is proposed in their place. */
export function acceptable(proposals: readonly Proposal[], deciding: Deciding): Proposal[] {
  return proposals.flatMap((proposal): Proposal[] => {
    switch (proposal.kind) {
      case "file":
        return deciding.takes(proposal.recordId) ? [proposal] : [];
      case "categorise":
        return deciding.isGiven(proposal.categoryId) ? [proposal] : [];
      case "assign":
        return ownable(proposal, deciding);
      default:
        return [proposal];
    }
  });
}

function ownable(proposal: Extract<Proposal, { kind: "assign" }>, deciding: Deciding): Proposal[] {
  const inCharge = deciding.mayOwn(proposal.ownerId) ? deciding.inCharge(proposal.ownerId) : null;
  if (inCharge === null || inCharge === deciding.ownerId || !deciding.mayOwn(inCharge)) return [];
  return [inCharge === proposal.ownerId ? proposal : { ...proposal, ownerId: inCharge, coversFor: proposal.ownerId }];
}
