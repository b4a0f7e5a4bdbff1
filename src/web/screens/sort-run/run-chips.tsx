import { allOf } from "../../../core/kernel/all-of";
import { commonTexts } from "../../../texts/en/common";
import { sortRunTexts } from "../../../texts/en/sort-run";
import { useSay } from "../../ui/texts/use-say";
import { ProposalTitle } from "../conversation/proposals";
import type { RunOffer } from "./run-docket";

/** What is proposed, beneath the letter on a small screen: one tap accepts one, another all of them. */
export function RunChips({ proposals, onAccept, onAcceptAll, goesOn }: RunOffer) {
  const say = useSay(sortRunTexts, commonTexts);
  if (proposals.length === 0) return null;
  return (
    <section
      aria-label={say("common.proposed")}
      className="flex shrink-0 flex-wrap gap-2 border-t border-rule bg-paper p-3 lg:hidden"
    >
      {proposals.map((proposal) => (
        <button
          key={proposal.key}
          type="button"
          title={proposal.reason}
          onClick={() => onAccept(proposal.decision)}
          className="flex min-h-11 max-w-full items-center rounded-control border border-act bg-act-soft px-3 text-start"
        >
          <ProposalTitle proposal={proposal} />
        </button>
      ))}
      {proposals.length > 1 && (
        <button
          type="button"
          onClick={onAcceptAll}
          className="min-h-11 basis-full rounded-control bg-ink px-3 font-semibold text-paper"
        >
          {say("sortRun.accept", { them: allOf(proposals.length) })}
          {goesOn && say("sortRun.andGoOn")}
        </button>
      )}
    </section>
  );
}
