import { DAY, HOUR, MINUTE } from "../kernel/instant";

/** A length of time in its largest whole unit: "5 min", "3 h", "1 day", "9 days". */
export function ageInWords(milliseconds: number): string {
  if (milliseconds < HOUR) return `${Math.max(0, Math.floor(milliseconds / MINUTE))} min`;
  if (milliseconds < DAY) return `${Math.floor(milliseconds / HOUR)} h`;
  const days = Math.floor(milliseconds / DAY);
  return days === 1 ? "1 day" : `${days} days`;
}
