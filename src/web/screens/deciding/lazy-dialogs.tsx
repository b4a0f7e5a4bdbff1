import { lazy } from "react";
import { Opens } from "../../keys/key-desk";
import { loadOnFirstInteraction } from "../../ui/load-on-first-interaction";
import type { DialogKind, DialogProps } from "./dialog-props";

const load = () => import("./decision-dialogs");
const Dialogs = lazy(load);
const dialogs = loadOnFirstInteraction(load);

/** Fetches the dialogs as soon as somebody does anything, so that they are there before they are asked for. */
export const useDialogsSoon = dialogs.use;

/** The dialog that a key or a button opened. */
export function DecisionDialogs(props: DialogProps & { readonly kind: DialogKind }) {
  return (
    <Opens>
      <Dialogs {...props} />
    </Opens>
  );
}
