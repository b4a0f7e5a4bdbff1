import { Dialog } from "../ui/dialog";

const KEYS: readonly (readonly [key: string, does: string])[] = [
  ["j / k", "next, previous conversation"],
  ["Enter / Esc", "open, back to the sheet"],
  ["r", "answer"],
  ["a", "assign to a colleague"],
  ["c", "categories"],
  ["f", "file to a record"],
  ["w", "waiting for reply"],
  ["l", "rest until a day"],
  ["n", "note for colleagues"],
  ["s", "settle"],
  ["b", "bin, or bring back from it"],
  ["z", "undo"],
  ["/", "search"],
  ["?", "this list"],
];

/** The keys that work here. */
export function KeyList({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title="Keys">
      <dl className="grid grid-cols-[96px_1fr] gap-y-1.5 overflow-y-auto px-4 py-3">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="font-semibold">{key}</dt>
            <dd className="text-soft">{does}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
