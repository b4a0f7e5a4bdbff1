import { lazy } from "react";

/** The sheet of what a record asks for; seldom needed, as most records ask for nothing. */
export const FilingSheet = lazy(() => import("./filing-sheet"));
