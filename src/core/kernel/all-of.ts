import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(timeTexts);

/** All of so many things, as people say it: "it", "both", "all 12". */
export function allOf(count: number): Said {
  return said("time.allOf", { count });
}
