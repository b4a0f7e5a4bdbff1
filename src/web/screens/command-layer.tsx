import { lazy, Suspense, useState } from "react";
import { useCommands } from "../keys/key-desk";
import { KeyList } from "./key-list";

const CommandField = lazy(() => import("./command-field"));

/** The command field and the list of keys, over every screen of a tray. */
export function CommandLayer() {
  const [open, setOpen] = useState<"commands" | "keys" | null>(null);
  useCommands({ commands: () => setOpen("commands"), keys: () => setOpen("keys") });
  if (open === "keys") return <KeyList onClose={() => setOpen(null)} />;
  if (open === null) return null;
  return (
    <Suspense fallback={null}>
      <CommandField onClose={() => setOpen(null)} />
    </Suspense>
  );
}
