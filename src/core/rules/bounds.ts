import { STANDINGS, type StandingKind } from "../standing/standing";
import type { Condition } from "./condition";

/** What a conversation must be like at least for a condition to hold; all that the store can ask for beforehand. */
export type Bounds = {
  readonly standings: ReadonlySet<StandingKind>;
  /** Hours, working or not, that it must have stood where it does, and since it began. */
  readonly standingFor: number;
  readonly age: number;
  /** Whether something must be due in it. */
  readonly isDue: boolean;
};

const NONE: Bounds = { standings: new Set(STANDINGS), standingFor: 0, age: 0, isDue: false };

/** The bounds of a condition: it holds of no conversation outside of them, as a working hour is never shorter than an hour. */
export function boundsOf(condition: Condition): Bounds {
  switch (condition.kind) {
    case "all":
      return condition.of.map(boundsOf).reduce(both, NONE);
    case "any":
      return condition.of.length === 0 ? NONE : condition.of.map(boundsOf).reduce(either);
    case "standing":
      return { ...NONE, standings: new Set(condition.of) };
    case "standing-for":
      return { ...NONE, standingFor: condition.hours };
    case "age":
      return { ...NONE, age: condition.hours };
    case "due":
      return { ...NONE, isDue: true };
    default:
      return NONE;
  }
}

function both(one: Bounds, other: Bounds): Bounds {
  return {
    standings: new Set([...one.standings].filter((standing) => other.standings.has(standing))),
    standingFor: Math.max(one.standingFor, other.standingFor),
    age: Math.max(one.age, other.age),
    isDue: one.isDue || other.isDue,
  };
}

function either(one: Bounds, other: Bounds): Bounds {
  return {
    standings: new Set([...one.standings, ...other.standings]),
    standingFor: Math.min(one.standingFor, other.standingFor),
    age: Math.min(one.age, other.age),
    isDue: one.isDue && other.isDue,
  };
}
