import { lazy, Suspense, useState } from "react";
import { Opening, useCommands } from "../keys/key-desk";

const KeyList = lazy(() => import("./key-list"));
const CommandField = lazy(() => import("./command-field"));

/** The command field and the list of keys, over every screen of a tray. */
export function CommandLayer() {
  const [open, setOpen] = useState<"commands" | "keys" | null>(null);
  useCommands({ commands: () => setOpen("commands"), keys: () => setOpen("keys") });
  if (open === null) return null;
  const close = () => setOpen(null);
  return (
    <Suspense fallback={<Opening />}>
      {open === "keys" ? <KeyList onClose={close} /> : <CommandField onClose={close} />}
    </Suspense>
  );
}
