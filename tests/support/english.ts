import "~/texts/en/index";
import type { Wording } from "~/texts/said";
import { sayIn } from "~/texts/say";

const say = sayIn("en");

/** What is compared with what somebody reads: the same, with everything in it said that has to be said. */
export type InEnglish<What> = What extends Wording
  ? string
  : What extends readonly (infer One)[]
    ? InEnglish<One>[]
    : What extends object
      ? { [Name in keyof What]: InEnglish<What[Name]> }
      : What;

/** Says in English whatever there is to be said in something, as deep as it may be. */
export function inEnglish<What>(what: What): InEnglish<What> {
  if (typeof what !== "object" || what === null) return what as InEnglish<What>;
  if (isWording(what)) return say(what) as InEnglish<What>;
  if (Array.isArray(what)) return what.map(inEnglish) as InEnglish<What>;
  if (Object.getPrototypeOf(what) !== Object.prototype) return what as InEnglish<What>;
  return Object.fromEntries(Object.entries(what).map(([name, one]) => [name, inEnglish(one)])) as InEnglish<What>;
}

function isWording(what: object): what is Wording {
  return [["key", "values"], ["all", "by"], ["at", "form"], ["figure"]].some((names) =>
    names.every((name) => name in what),
  );
}
