import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";
import { DAY, HOUR, MINUTE } from "../kernel/instant";

const said = saidOf(timeTexts);

/** A length of time in its largest whole unit: "5 min", "3 h", "1 day", "9 days". */
export function ageInWords(milliseconds: number): Said {
  if (milliseconds < HOUR) return said("time.minutes", { count: Math.max(0, Math.floor(milliseconds / MINUTE)) });
  return milliseconds < DAY
    ? said("time.hours", { count: Math.floor(milliseconds / HOUR) })
    : said("time.days", { count: Math.floor(milliseconds / DAY) });
}
