import { Link } from "react-router";
import type { PutAway } from "../../../core/rule-learning/find-routines";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import { BUTTON_LINK, Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { RulesOutcome } from "../rule-trial/rules-outcome";

type Proposed = {
  readonly id: string;
  /** The list or the address that it all comes from. */
  readonly source: string;
  readonly putAway: PutAway;
  readonly count: number;
  /** The ids of the newest, with commas between them. */
  readonly from: string;
};

/** Rules that are proposed unasked: what they would be for, the way to make one of it, and not to hear of it again. */
export function ProposedRules({ proposals }: { proposals: readonly Proposed[] }) {
  const say = useSay(rulesTexts, commonTexts);
  const { tray } = useTray();
  const { post, isBusy, underWay, refused } = useFormAction<RulesOutcome>("rules", ({ declinedId }) => {
    if (declinedId === null) return;
    notice(say("rules.notProposedAgain"), {
      action: { label: say("common.undo"), onClick: () => post({ do: "propose-again", id: declinedId }) },
    });
  });
  const shown = proposals.filter(({ id }) => !(underWay?.get("do") === "decline" && underWay.get("id") === id));
  if (shown.length === 0) return null;
  return (
    <section aria-label={say("rules.proposed")} className="mb-5 border-s-2 border-act bg-act-soft px-4 py-3">
      <h2 className="font-serif text-[15px]">{say("rules.proposed")}</h2>
      <ul>
        {shown.map(({ id, source, putAway, count, from }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="min-w-0 flex-1 basis-72">{say("rules.wasPutAwayUnread", { count, putAway, source })}</span>
            <Link to={`/${tray.slug}/rules/new?from=${from}&proposal=${id}`} className={`${BUTTON_LINK} h-7!`}>
              {say("rules.lookAtIt")}
            </Link>
            <Button look="quiet" disabled={isBusy} onClick={() => post({ do: "decline", id })} className="h-7!">
              {say("rules.noThanks")}
            </Button>
          </li>
        ))}
      </ul>
      {refused?.problem != null && (
        <p role="alert" className="text-late">
          {refused.problem}
        </p>
      )}
    </section>
  );
}
