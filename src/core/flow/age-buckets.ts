import { DAY } from "../kernel/instant";

/** The upper ends of the five age buckets of the flow bar, in milliseconds; the last bucket has none. */
export const AGE_BUCKET_ENDS = [1 * DAY, 3 * DAY, 7 * DAY, 14 * DAY] as const;

/** What the buckets are called, youngest first. */
export const AGE_BUCKET_NAMES = ["under a day", "1 to 3 days", "3 to 7 days", "1 to 2 weeks", "over 2 weeks"] as const;
