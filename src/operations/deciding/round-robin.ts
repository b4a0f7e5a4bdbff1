import { loadOf, turnTaker } from "../../core/assigning/load";
import { timeOffAt } from "../../core/cover/covering";
import { type Decision, withOwnId } from "../../core/deciding/decision";
import { planDecision } from "../../core/deciding/plan-decision";
import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect } from "../../core/journal/entry";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { groupsOf, type MemberGroup, type TrayGrant, timesOffNow } from "../../storage/access/index";
import { deskParts } from "../../storage/lists/index";
import type { Asking } from "../base/deps";

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

/** The load of each of a group who is not away. */
export async function loadsOfThere(deps: Asking, grant: TrayGrant, group: MemberGroup) {
  const now = deps.now();
  const [parts, timesOff] = await Promise.all([deskParts(deps.db, grant, now), timesOffNow(deps.db, now)]);
  const there = group.memberIds.filter((id) => timeOffAt(id, now, timesOff) === null);
  return new Map(there.map((id) => [id, loadOf(id, parts)]));
}
