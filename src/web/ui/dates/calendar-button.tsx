import { CalendarDays } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { uiTexts } from "../../../texts/en/ui";
import { Popover } from "../menu-parts";
import { useSay } from "../texts/use-say";

const Calendar = lazy(() => import("./calendar"));

type CalendarButtonProps = {
  /** Of what it chooses the day. */
  readonly label: string;
  /** The day that is chosen already, `YYYY-MM-DD`. */
  readonly day?: string | null;
  readonly onDay: (day: string) => void;
};

/** Opens a calendar to click a day; it is fetched when it is asked for. */
export function CalendarButton({ label, day = null, onDay }: CalendarButtonProps) {
  const say = useSay(uiTexts);
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger
        type="button"
        aria-label={say("ui.calendar", { label })}
        className="grid size-9 shrink-0 place-items-center rounded-control border border-rule bg-paper text-soft hover:border-act hover:text-act"
      >
        <CalendarDays size={15} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          // Within a dialog or a form, Esc closes the calendar only.
          onEscapeKeyDown={(event) => event.stopPropagation()}
          className="z-50 min-h-[290px] min-w-[250px] rounded-sheet border border-rule bg-paper shadow-raised"
        >
          <Suspense fallback={<p className="p-4 text-soft">{say("ui.loadingCalendar")}</p>}>
            <Calendar
              day={day}
              onDay={(chosen) => {
                setOpen(false);
                onDay(chosen);
              }}
            />
          </Suspense>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
