import { Link } from "react-router";
import { listTexts } from "../../../texts/en/list";
import type { ListStart } from "../../server/list/list-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** Above what is held: each round with how much it holds and until when, and its door. */
export function HeldLines({ rounds }: { rounds: NonNullable<ListStart["held"]> }) {
  const say = useSay(listTexts);
  const { tray, mayDecide, held } = useTray();
  const { post, isBusy, refused } = useFormAction("rounds");
  // Others let in meanwhile, and the hours do: figures that are true no longer are not said.
  const isCurrent = rounds.reduce((sum, { count }) => sum + count, 0) === (held ?? 0);
  return (
    <div className="mx-4 mb-2 flex shrink-0 flex-wrap items-center gap-x-6 gap-y-1 text-sm">
      {rounds.map(({ id, name, count, next }) => (
        <p key={id} className="flex items-center gap-2">
          <span className="font-serif text-[15px]">{name}</span>
          <span className="text-soft">
            {isCurrent &&
              (next === null ? say("list.heldWithoutAnHour", { count }) : say("list.heldUntil", { count, next }))}
          </span>
          {mayDecide && count > 0 && held !== null && (
            <Button className="h-6! px-2!" disabled={isBusy} onClick={() => post({ do: "let-in", id })}>
              {say("list.letInNow")}
            </Button>
          )}
        </p>
      ))}
      <Link to={`/${tray.slug}/rounds`} className="text-act underline-offset-2 hover:underline">
        {say("list.rounds")}
      </Link>
      {refused?.problem != null && (
        <p role="alert" className="text-late">
          {refused.problem}
        </p>
      )}
    </div>
  );
}
