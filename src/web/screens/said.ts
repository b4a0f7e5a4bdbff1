import { assertNever } from "../../core/kernel/assert-never";
import type { PostedDecision } from "./decisions";

type Names = {
  readonly members: readonly { readonly id: string; readonly name: string }[];
  readonly categories: readonly { readonly id: string; readonly name: string }[];
  readonly subject: string;
};

/** What was decided, in the few words that the message with the Undo button has. */
export function said(decision: PostedDecision, { members, categories, subject }: Names): string {
  return `${what(decision, members, categories)}: ${subject === "" ? "no subject" : subject}`;
}

function what(decision: PostedDecision, members: Names["members"], categories: Names["categories"]): string {
  const nameOf = (list: Names["members"], id: string) => list.find((one) => one.id === id)?.name ?? "";
  switch (decision.kind) {
    case "assign":
      return decision.owner === "" ? "No owner" : `Assigned to ${nameOf(members, decision.owner)}`;
    case "categorise":
      return `${nameOf(categories, decision.category)} ${decision.give ? "given" : "taken off"}`;
    case "file":
      return decision.settle ? `Filed to ${decision.code} and settled` : `Filed to ${decision.code}`;
    case "unfile":
      return `Taken off ${decision.code}`;
    case "keep":
      return "Our move";
    case "settle":
      return "Settled";
    case "bin":
      return "In the bin";
    case "restore":
      return "Brought back";
    case "rest":
      return "Resting";
    case "expect":
      return "Waiting for reply";
    case "stop-expecting":
      return "No longer waiting";
    case "note":
      return "Note added";
    default:
      return assertNever(decision);
  }
}
