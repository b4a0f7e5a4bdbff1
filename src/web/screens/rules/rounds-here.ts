import { createContext, useContext } from "react";
import type { Round } from "../../../core/rounds/round";

/** A round by its name, for what names it. */
export type NamedRound = Pick<Round, "id" | "name">;

const HERE = createContext<readonly NamedRound[]>([]);

/** What stands within it knows the rounds of the tray. */
export const RoundsHere = HERE.Provider;

/** The rounds of the tray. */
export function useRounds(): readonly NamedRound[] {
  return useContext(HERE);
}
