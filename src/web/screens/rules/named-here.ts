import { createContext, useContext } from "react";
import type { Round } from "../../../core/rounds/round";
import type { Template } from "../../../core/templates/template";

/** What rules can name that no other screen shows. */
export type NamesHere = {
  readonly rounds: readonly Pick<Round, "id" | "name">[];
  readonly templates: readonly Pick<Template, "id" | "name" | "folder">[];
};

const HERE = createContext<NamesHere>({ rounds: [], templates: [] });

/** What stands within it knows the rounds and the templates of the tray. */
export const NamedHere = HERE.Provider;

/** The rounds and the templates of the tray. */
export function useNamesHere(): NamesHere {
  return useContext(HERE);
}
