import { ChevronLeft, ChevronRight } from "lucide-react";
import { DayPicker } from "react-day-picker";
import { dateOfDay, dayOfDate } from "./day-words";

const MONDAY = 1;

const LOOK = {
  root: "p-3 text-sm",
  months: "relative",
  month_caption: "flex h-7 items-center justify-center font-semibold",
  nav: "absolute inset-x-0 top-0 flex h-7 items-center justify-between",
  button_previous: "grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink",
  button_next: "grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink",
  month_grid: "mt-1.5 border-collapse",
  weekday: "size-8 text-center font-normal text-soft",
  day: "p-0 text-center",
  day_button: "size-8 rounded-control tabular-nums hover:bg-act-soft",
  today: "font-bold text-act",
  selected: "[&>button]:bg-act [&>button]:text-on-act",
  outside: "text-soft",
} as const;

function Chevron({ orientation }: { readonly orientation?: "up" | "down" | "left" | "right" }) {
  const Icon = orientation === "left" ? ChevronLeft : ChevronRight;
  return <Icon size={16} aria-hidden />;
}

type CalendarProps = {
  /** `YYYY-MM-DD`; null for none. */
  readonly day: string | null;
  readonly onDay: (day: string) => void;
};

/** A month to click a day of; days are those of the calendar, without a time or a zone. */
export default function Calendar({ day, onDay }: CalendarProps) {
  const selected = day === null ? undefined : dateOfDay(day);
  return (
    <DayPicker
      mode="single"
      required
      autoFocus
      showOutsideDays
      timeZone="UTC"
      weekStartsOn={MONDAY}
      selected={selected}
      {...(selected === undefined ? {} : { defaultMonth: selected })}
      onSelect={(at) => onDay(dayOfDate(at))}
      classNames={LOOK}
      components={{ Chevron }}
    />
  );
}
