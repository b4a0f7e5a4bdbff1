import { lazy, useState } from "react";
import { Opens, useCommands } from "../../keys/key-desk";

const KeyList = lazy(() => import("./key-list"));
const CommandField = lazy(() => import("./command-field"));

/** The command field and the list of keys, over every screen of a tray. */
export function CommandLayer() {
  const [open, setOpen] = useState<"commands" | "keys" | null>(null);
  useCommands({ commands: () => setOpen("commands"), keys: () => setOpen("keys") });
  if (open === null) return null;
  const close = () => setOpen(null);
  return <Opens>{open === "keys" ? <KeyList onClose={close} /> : <CommandField onClose={close} />}</Opens>;
}
