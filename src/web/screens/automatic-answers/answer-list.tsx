import { Link } from "react-router";
import { isStopped } from "../../../core/rules/gone-names";
import { answersTexts } from "../../../texts/en/answers";
import { commonTexts } from "../../../texts/en/common";
import type { ListedAnswer } from "../../server/automatic-answers/answer-view.server";
import { Button, QUIET_LINK } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useKeptList } from "../forms/use-kept-list";
import { useTray } from "../frame/tray-data";

/** The automatic answers of a tray in the order in which they are asked. */
export function AnswerList({ answers }: { answers: readonly ListedAnswer[] }) {
  const say = useSay(answersTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const { problem, isOn, switches, removes } = useKeptList("automatic-answers", say("answers.removed"));
  if (answers.length === 0) return <p className="max-w-prose">{say("answers.noneYet")}</p>;
  return (
    <div>
      {problem !== null && (
        <p role="alert" className="pb-2 text-late">
          {problem}
        </p>
      )}
      <ol aria-label={say("answers.automaticAnswers")} className="border-t border-rule">
        {answers.map((answer) => (
          <li key={answer.id} className="flex flex-wrap items-start gap-x-3 border-b border-hair py-2">
            <input
              type="checkbox"
              aria-label={say("answers.isOn", { name: answer.name })}
              checked={isOn(answer)}
              disabled={!mayLead}
              onChange={(event) => switches(answer.id, event.target.checked)}
              className="mt-1 ml-1 size-[14px] accent-act"
            />
            <Described answer={{ ...answer, isOn: isOn(answer) }} />
            {mayLead && (
              <span className="flex shrink-0 items-center max-sm:w-full max-sm:justify-end">
                <Link
                  to={`/${tray.slug}/automatic-answers/${answer.id}`}
                  aria-label={say("common.changeOf", { name: answer.name })}
                  className={`${QUIET_LINK} px-2`}
                >
                  {say("common.change")}
                </Link>
                <Button
                  look="quiet"
                  aria-label={say("common.removeOf", { name: answer.name })}
                  onClick={() => removes(answer.id)}
                  className="px-2"
                >
                  {say("common.remove")}
                </Button>
              </span>
            )}
          </li>
        ))}
      </ol>
    </div>
  );
}

function Described({ answer }: { answer: ListedAnswer }) {
  const say = useSay(answersTexts);
  const { members } = useTray();
  const { trigger, from, until, pace, count, textCount, begins, isOn, isOver, gone } = answer;
  const who = trigger.kind === "away" ? members.find(({ id }) => id === trigger.memberId)?.name : undefined;
  const when =
    trigger.kind === "away"
      ? say("answers.whileAway", { who: who ?? say("answers.aFormerColleague") })
      : say(trigger.kind === "closed" ? "answers.whileClosed" : "answers.always");
  return (
    <div className={`min-w-0 flex-1 max-sm:basis-3/4 ${isOn && !isOver ? "" : "text-soft"}`}>
      <p className="font-semibold">
        {answer.name}
        {!isOn && <span className="font-normal"> {say("answers.off")}</span>}
      </p>
      <p>
        {[
          when,
          from === null ? "" : say("answers.fromThen", { from }),
          until === null ? "" : isOver ? say("answers.endedThen", { until }) : say("answers.untilThen", { until }),
          pace.kind === "once" ? say("answers.onceInDays", { days: pace.days }) : say("answers.eachTime"),
          say("answers.wentLately", { count }),
        ]
          .filter((part) => part !== "")
          .join(" · ")}
      </p>
      <p className="truncate font-serif text-soft">
        {begins}
        {textCount > 1 && ` ${say("answers.andMoreTexts", { count: textCount - 1 })}`}
      </p>
      {isOn && gone.length > 0 && <p className="text-sm text-late">{say(isStopped(gone))}</p>}
    </div>
  );
}
