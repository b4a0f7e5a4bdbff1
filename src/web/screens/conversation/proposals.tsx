import { conversationTexts } from "../../../texts/en/conversation";
import type { RowView } from "../../server/base/row-view.server";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import { KeyCap } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { useSay } from "../../ui/texts/use-say";
import type { PostedDecision } from "../deciding/posted-decision";
import { useTray } from "../frame/tray-data";

type ProposalsProps = {
  readonly proposals: readonly ProposalView[];
  readonly onAccept: (decision: PostedDecision) => void;
};

/** What is proposed, each with its key, its reason and how sure it is. */
export function Proposals({ proposals, onAccept }: ProposalsProps) {
  return proposals.map((proposal, at) => (
    <button
      key={proposal.key}
      type="button"
      aria-keyshortcuts={`${at + 1}`}
      onClick={() => onAccept(proposal.decision)}
      className="grid w-full grid-cols-[24px_minmax(0,1fr)_34px] items-start gap-x-2 border-t border-hair px-3 py-2 text-start hover:bg-act-soft"
    >
      <span className="text-soft">
        <KeyCap>{`${at + 1}`}</KeyCap>
      </span>
      <span className="min-w-0">
        <ProposalTitle proposal={proposal} />
      </span>
      <Confidence value={proposal.confidence} />
      <span className="col-span-2 col-start-2 mt-0.5 text-sm leading-[17px] text-soft">{proposal.reason}</span>
    </button>
  ));
}

/** What a proposal comes to, as a line. */
export function ProposalTitle({ proposal }: { proposal: ProposalView }) {
  const { categories } = useTray();
  const { decision } = proposal;
  if (decision.kind !== "categorise") return <span className="block truncate">{proposal.title}</span>;
  const category = categories.find(({ id }) => id === decision.categoryId);
  return category === undefined ? null : <CategoryTab code={category.code} name={category.name} ink={category.ink} />;
}

function Confidence({ value }: { value: number }) {
  const say = useSay(conversationTexts);
  const percent = Math.round(value * 100);
  return (
    <span
      role="img"
      aria-label={say("conversation.sure", { percent })}
      title={say("conversation.sure", { percent })}
      className="mt-1.5 block h-[5px] bg-sunk"
    >
      <span className="block h-full bg-act" style={{ width: `${percent}%` }} />
    </span>
  );
}

/** A proposal is open until what it proposes is so. */
export function isStillProposed({ decision }: ProposalView, row: RowView): boolean {
  switch (decision.kind) {
    case "categorise":
      return !row.categoryIds.some((id) => id === decision.categoryId);
    case "file":
      return !row.recordCodes.some((code) => code === decision.called);
    case "assign":
      return row.ownerId !== decision.ownerId;
    default:
      return true;
  }
}
