import type { StandingKind } from "../standing/standing";
import type { Decision } from "./plan-decision";

/** The standing that a decision leads to from another; null when it moves nothing. What the store says afterwards counts. */
export function leadsTo(
  decision: Pick<Decision, "kind"> & { readonly settle?: boolean; readonly ownerId?: unknown },
  from: StandingKind,
): StandingKind | null {
  switch (decision.kind) {
    case "assign":
      return from === "to-sort" && decision.ownerId !== null ? "our-move" : null;
    case "assign-in-turn":
      return from === "to-sort" ? "our-move" : null;
    case "file":
      return decision.settle === true ? "settled" : null;
    case "keep":
      return "our-move";
    case "settle":
    case "no-answer":
      return "settled";
    case "bin":
      return "bin";
    case "junk":
      return "junk";
    case "restore":
      return "to-sort";
    case "rest":
      return "resting";
    case "expect":
      return "waiting";
    case "stop-expecting":
      return from === "waiting" ? "our-move" : null;
    default:
      return null;
  }
}
