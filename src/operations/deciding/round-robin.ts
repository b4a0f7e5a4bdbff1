import { turnTaker } from "../../core/assigning/load";
import { type Decision, withOwnId } from "../../core/deciding/decision";
import { planDecision } from "../../core/deciding/plan-decision";
import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect } from "../../core/journal/entry";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { groupsOf, type TrayGrant } from "../../storage/access/index";
import type { Asking } from "../base/deps";
import { loadsOfThere } from "../changes/loads-of-there";

/** What a decision does to each conversation in turn; for a group, whoever has least then takes the next one. */
export async function plannerOf(
  deps: Asking,
  grant: TrayGrant,
  decision: Decision,
): Promise<(facts: ConversationFacts) => Effect[]> {
  if (decision.kind !== "assign-in-turn") {
    let own: Decision = decision;
    return (facts) => {
      const effects = planDecision(own, facts);
      own = withOwnId(decision, deps.newId);
      return effects;
    };
  }
  const group = (await groupsOf(deps.db, grant)).find(({ id }) => id === decision.groupId);
  const loads = group === undefined ? new Map() : await loadsOfThere(deps, grant, group);
  const next = turnTaker(loads);
  return (facts) => {
    const { ownerId } = deriveDocket(facts);
    // What one of them has already is where it should be.
    const taker = ownerId !== null && loads.has(ownerId) ? ownerId : next();
    if (taker === null) return [];
    return planDecision({ kind: "assign", ownerId: taker, note: decision.note ?? "" }, facts);
  };
}
