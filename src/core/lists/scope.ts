import { standingTexts } from "../../texts/en/standing";
import { type Said, saidOf } from "../../texts/said";
import { FLOW, isStandingKind, STANDING_NAMES, type StandingKind } from "../standing/standing";

const said = saidOf(standingTexts);

/** What a sheet lists: one standing, or everything that is still open. */
export type Scope = StandingKind | "open";

/** The standings that hold open conversations: all of the flow but its end. */
export const OPEN_STANDINGS = FLOW.filter((standing) => standing !== "settled");

/** The name of a scope on screen. */
export function scopeName(scope: Scope): Said {
  return scope === "open" ? said("standing.allThatIsOpen") : STANDING_NAMES[scope];
}

/** True for the name of a scope as it appears in a URL. */
export function isScope(text: string): text is Scope {
  return text === "open" || isStandingKind(text);
}

/** True when a conversation in this standing belongs to the scope. */
export function isInScope(standing: StandingKind, scope: Scope): boolean {
  return scope === "open" ? (OPEN_STANDINGS as readonly string[]).includes(standing) : standing === scope;
}
