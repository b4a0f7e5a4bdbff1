import { Link } from "react-router";
import { peopleTexts } from "../../../texts/en/people";
import type { TimeOffView } from "../../server/people/time-off-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";

type AwayListProps = {
  readonly title: string;
  readonly none: string;
  readonly times: readonly TimeOffView[];
  readonly isOwn?: boolean;
};

/** Times off, each with who covers; one's own, and for who leads everybody's, can be ended. */
export function AwayList({ title, none, times, isOwn = false }: AwayListProps) {
  return (
    <section aria-label={title}>
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{title}</h2>
      {times.length === 0 && <p className="py-2 text-soft">{none}</p>}
      <ul>
        {times.map((time) => (
          <AwayLine key={time.id} time={time} isOwn={isOwn} />
        ))}
      </ul>
    </section>
  );
}

function AwayLine({ time, isOwn }: { time: TimeOffView; isOwn: boolean }) {
  const say = useSay(peopleTexts);
  const { tray, mayLead } = useTray();
  const { Form, action } = useFormAction("away");
  const { id, memberId, name, isNow, isOver, stretch, covers } = time;
  return (
    <li className="flex items-start gap-3 border-b border-hair py-2">
      <OwnerBadge ownerId={memberId} />
      <div className="min-w-0 flex-1">
        <p>
          {!isOwn && <b className="font-semibold">{name}, </b>}
          {stretch}
          {isNow && <span className="text-soft">{say("people.now")}</span>}
        </p>
        <p className="text-sm text-soft">
          {covers.length === 0 ? say("people.nobodyCovers") : covers.map(({ words }) => words).join("; ")}
        </p>
      </div>
      {isOwn && (isNow || isOver) && (
        <Link to={`/${tray.slug}/absence-summary/${id}`} className="leading-8 text-act hover:underline">
          {say("people.whatHappened")}
        </Link>
      )}
      {!isOver && (isOwn || mayLead) && (
        <Form method="post" action={action}>
          <input type="hidden" name="id" value={id} />
          {!isOwn && <input type="hidden" name="member" value={memberId} />}
          <Button
            type="submit"
            name="do"
            value="end"
            aria-label={say(isNow ? "people.endTimeOff" : "people.callOffTimeOff", {
              whose: isOwn ? "own" : "other",
              name,
            })}
          >
            {isNow ? say("people.backToday") : say("people.callOff")}
          </Button>
        </Form>
      )}
    </li>
  );
}
