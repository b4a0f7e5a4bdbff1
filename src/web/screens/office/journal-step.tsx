import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { JournalStepView } from "../../server/office/journal-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type JournalStepProps = {
  readonly step: JournalStepView;
  readonly heading: string | null;
  readonly isSelected?: boolean;
  /** Absent where steps are not chosen. */
  readonly onToggle?: (extend: boolean) => void;
  readonly onUndo: () => void;
  /** Whether who did it is left out, where that is said above. */
  readonly isByOne?: boolean;
};

/** A step of a journal as a line, below its day where that begins with it; chosen with others where that is of use. */
export function JournalStep({
  step,
  heading,
  isSelected = false,
  onToggle,
  onUndo,
  isByOne = false,
}: JournalStepProps) {
  const say = useSay(officeTexts, commonTexts);
  const { tray } = useTray();
  const { rule, words, when, count, subject, conversationId, isUndone, mayUndo } = step;
  const who = useWho(step);
  const about = count === 1 ? subject || say("common.noSubject") : say("common.conversations", { count });
  return (
    <>
      {heading !== null && (
        <li className="border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
          <h2>{heading}</h2>
        </li>
      )}
      <li
        className={`flex min-h-[29px] items-center gap-x-3 border-b max-sm:flex-wrap max-sm:py-1.5 border-hair px-4 py-0.5 ${isSelected ? "bg-act-soft" : ""}`}
      >
        {onToggle !== undefined && (
          <input
            type="checkbox"
            aria-label={say("office.select", { who, words, about })}
            checked={isSelected}
            disabled={!mayUndo}
            onChange={() => undefined}
            onClick={(event) => onToggle(event.shiftKey)}
            className="size-[14px] accent-act disabled:opacity-25"
          />
        )}
        <span className="w-28 shrink-0 text-sm whitespace-nowrap text-soft max-sm:flex-1">{when}</span>
        <span
          className={`min-w-0 flex-1 truncate max-sm:order-1 max-sm:basis-full max-sm:whitespace-normal ${isUndone ? "text-soft line-through" : ""}`}
        >
          {!isByOne && <b className="font-semibold">{who} </b>}
          {words}
          {rule !== null && <span className="text-soft"> ({rule.why})</span>}
        </span>
        {count === 1 ? (
          <Link
            to={`/${tray.slug}/open/${conversationId}`}
            className="w-2/5 truncate font-serif hover:text-act max-sm:order-1 max-sm:w-full"
          >
            {about}
          </Link>
        ) : (
          <span className="w-2/5 truncate text-soft max-sm:order-1 max-sm:w-full">{about}</span>
        )}
        <span className="w-14 shrink-0 text-end text-sm">
          {mayUndo ? (
            <button type="button" onClick={onUndo} className="text-act underline-offset-2 hover:underline">
              {say("common.undoInside")}
            </button>
          ) : (
            <span className="text-soft">{isUndone && say("office.undone")}</span>
          )}
        </span>
      </li>
    </>
  );
}

/** Who did a step, as the subject of a sentence. */
export function useWho({ by, rule }: Pick<JournalStepView, "by" | "rule">): string {
  const say = useSay(officeTexts, commonTexts);
  const { members, member } = useTray();
  if (rule !== null) return say("office.theRule", { name: rule.name });
  if (by === null) return say("office.theTray");
  return by === member.id
    ? say("common.you")
    : (members.find(({ id }) => id === by)?.name ?? say("office.aFormerColleague"));
}
