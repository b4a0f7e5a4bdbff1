import type { RoundNow } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { roundsTexts } from "../../../texts/en/rounds";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useKeptList } from "../forms/use-kept-list";
import { useTray } from "../frame/tray-data";

/** A round as its page shows it, with its times and its next hour in words. */
export type RoundView = Pick<RoundNow, "id" | "name" | "count" | "rules"> & {
  readonly times: readonly string[];
  readonly next: string | null;
};

type RoundListProps = { readonly rounds: readonly RoundView[]; readonly onEdit: (id: string) => void };

/** The rounds of a tray, each with what it holds and until when. */
export function RoundList({ rounds, onEdit }: RoundListProps) {
  const say = useSay(roundsTexts, commonTexts);
  const { mayLead, mayDecide } = useTray();
  const { post, isBusy, problem, removes } = useKeptList("rounds", say("rounds.removed"));
  if (rounds.length === 0) return <p className="max-w-prose">{say("rounds.noRoundsYet")}</p>;
  return (
    <div>
      {problem !== null && (
        <p role="alert" className="pb-2 text-late">
          {problem}
        </p>
      )}
      <ul aria-label={say("rounds.rounds")} className="border-t border-rule">
        {rounds.map(({ id, name, times, next, count, rules }) => (
          <li key={id} className="flex flex-wrap items-start gap-x-4 gap-y-1 border-b border-hair py-2">
            <div className="min-w-0 flex-1 max-sm:basis-full">
              <p>
                <span className="font-serif text-[15px]">{name}</span>{" "}
                <span className="text-soft tabular-nums">{times.join(" · ")}</span>
              </p>
              <p className="text-sm text-soft">
                {next === null ? say("rounds.heldWithoutAnHour", { count }) : say("rounds.heldUntil", { count, next })}{" "}
                {rules.length === 0
                  ? say("rounds.noRuleHoldsForIt")
                  : say("rounds.heldBy", { rules: { all: rules, by: "and" } })}
              </p>
            </div>
            <span className="flex shrink-0 items-center">
              {mayDecide && count > 0 && (
                <Button
                  disabled={isBusy}
                  aria-label={say("rounds.letInNowOf", { name })}
                  onClick={() => post({ do: "let-in", id })}
                  className="me-1"
                >
                  {say("rounds.letInNow")}
                </Button>
              )}
              {mayLead && (
                <>
                  <Button look="quiet" aria-label={say("common.changeOf", { name })} onClick={() => onEdit(id)}>
                    {say("common.change")}
                  </Button>
                  <Button look="quiet" aria-label={say("common.removeOf", { name })} onClick={() => removes(id)}>
                    {say("common.remove")}
                  </Button>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
