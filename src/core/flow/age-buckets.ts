import { listTexts } from "../../texts/en/list";
import { saidOf } from "../../texts/said";
import { DAY } from "../kernel/instant";

const said = saidOf(listTexts);

/** The upper ends of the five age buckets of the flow bar, in milliseconds; the last bucket has none. */
export const AGE_BUCKET_ENDS = [1 * DAY, 3 * DAY, 7 * DAY, 14 * DAY] as const;

/** What the buckets are called, youngest first. */
export const AGE_BUCKET_NAMES = [
  said("list.underADay"),
  said("list.1To3Days"),
  said("list.3To7Days"),
  said("list.1To2Weeks"),
  said("list.over2Weeks"),
] as const;
