import { assertNever } from "../../../core/kernel/assert-never";
import { URGENCY_NAMES } from "../../../core/kernel/urgency";
import { countOf, type DecisionTarget, type PostedDecision } from "./posted-decision";

type Names = {
  readonly members: readonly { readonly id: string; readonly name: string }[];
  readonly categories: readonly { readonly id: string; readonly name: string }[];
  readonly groups?: readonly { readonly id: string; readonly name: string }[];
};

/** What was decided, in the few words that the message with the Undo button has. */
export function saidOf(decision: PostedDecision, names: Names, target: DecisionTarget): string {
  const count = countOf(target);
  const about = count === 1 ? target.rows[0]?.subject || "no subject" : `${count.toLocaleString("en")} conversations`;
  return `${what(decision, names)}: ${about}`;
}

function what(decision: PostedDecision, { members, categories, groups = [] }: Names): string {
  const nameOf = (list: Names["members"], id: string) => list.find((one) => one.id === id)?.name ?? "";
  switch (decision.kind) {
    case "accept":
      return decision.decisions.map((one) => what(one, { members, categories, groups })).join(", ");
    case "assign":
      return decision.owner === "" ? "No owner" : `Assigned to ${nameOf(members, decision.owner)}`;
    case "assign-in-turn":
      return `In turn to ${nameOf(groups, decision.group)}`;
    case "follow":
      return decision.follows ? "Followed" : "No longer followed";
    case "categorise":
      return `${decision.name ?? nameOf(categories, decision.category)} ${decision.give ? "added" : "removed"}`;
    case "file":
      return decision.settle ? `Filed to ${decision.code} and settled` : `Filed to ${decision.code}`;
    case "unfile":
      return `Removed from ${decision.code}`;
    case "particulars":
      return `Particulars on ${decision.code} changed`;
    case "keep":
      return "Our move";
    case "settle":
      return "Settled";
    case "bin":
      return "Moved to bin";
    case "junk":
      return "Junk";
    case "restore":
      return "Brought back";
    case "rest":
      return "Resting";
    case "expect":
      return "Waiting for reply";
    case "stop-expecting":
    case "withdraw":
      return "No longer waiting";
    case "extend":
      return "Given more time";
    case "expire":
      return decision.at === "" ? "No expiry" : "Expiry set";
    case "acknowledge":
      return "No answer yet";
    case "no-answer":
      return "No answer needed";
    case "urgency":
      return URGENCY_NAMES[decision.urgency];
    case "follow-up":
      return "Follow-up set";
    case "follow-up-done":
      return "Follow-up done";
    case "follow-up-clear":
      return "Follow-up cleared";
    case "note":
      return "Note added";
    case "unread":
      return "Unread";
    default:
      return assertNever(decision);
  }
}
