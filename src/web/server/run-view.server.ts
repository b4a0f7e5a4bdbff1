import type { Proposal } from "../../core/filing/propose";
import { assertNever } from "../../core/kernel/assert-never";
import type { RunConversation, TrayNames } from "../../operations/index.server";
import type { PostedDecision } from "../screens/decisions";
import { conversationView } from "./conversation-view.server";
import type { Reading } from "./words.server";

/** A proposal as the docket shows it: what is decided by its key, and the reason. */
export type ProposalView = {
  readonly key: string;
  readonly decision: PostedDecision;
  readonly title: string;
  readonly reason: string;
  readonly confidence: number;
};

/** A conversation of a sort run, ready to be drawn. */
export function runView({ open, proposals, records }: RunConversation, names: TrayNames, reading: Reading) {
  const who = open.row.who;
  return {
    ...conversationView(open, names, reading),
    proposals: proposals.flatMap((proposal) => {
      const view = proposalView(proposal, names, records, who);
      return view === null ? [] : [view];
    }),
  };
}

export type RunView = ReturnType<typeof runView>;

function proposalView(
  proposal: Proposal,
  { members, categories }: TrayNames,
  records: RunConversation["records"],
  who: string,
): ProposalView | null {
  const { confidence, was, of } = proposal;
  const reason = `${was === of ? `all of the last ${of}` : `${was} of the last ${of}`} with ${who}`;
  switch (proposal.kind) {
    case "file": {
      const record = records.find(({ id }) => id === proposal.recordId);
      if (record === undefined) return null;
      const decision = { kind: "file", record: record.id, code: record.code, settle: false } as const;
      return { key: `file ${record.id}`, decision, title: `${record.code} ${record.title}`, reason, confidence };
    }
    case "categorise": {
      const category = categories.find(({ id }) => id === proposal.categoryId);
      if (category === undefined) return null;
      const decision = { kind: "categorise", category: category.id, give: true } as const;
      return { key: `category ${category.id}`, decision, title: category.name, reason, confidence };
    }
    case "assign": {
      const member = members.find(({ id }) => id === proposal.ownerId);
      if (member === undefined) return null;
      return {
        key: "owner",
        decision: { kind: "assign", owner: member.id },
        title: `Assign to ${member.name}`,
        reason,
        confidence,
      };
    }
    case "settle":
      return {
        key: "settle",
        decision: { kind: "settle" },
        title: "Settle",
        reason: `${reason} needed no answer`,
        confidence,
      };
    default:
      return assertNever(proposal);
  }
}
