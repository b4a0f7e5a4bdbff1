import { lazy } from "react";

/** The picker of records, fetched when it is needed. */
export const RecordPicker = lazy(() => import("./record-picker").then((screen) => ({ default: screen.RecordPicker })));
