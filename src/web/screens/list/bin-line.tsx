import { TriangleAlert } from "lucide-react";
import type { ListStart } from "../../server/list/list-view.server";

/** Above the bin: when it is emptied, and a warning where things are put into it to be kept. */
export function BinLine({ bin }: { bin: NonNullable<ListStart["bin"]> }) {
  return (
    <div className="mx-4 mb-2 shrink-0 text-sm">
      <p className="text-soft">{[bin.term, bin.next, bin.stays].filter((part) => part !== "").join(" ")}</p>
      {bin.warning !== null && (
        <p className="mt-0.5 flex items-start gap-1.5 text-late">
          <TriangleAlert size={14} aria-hidden className="mt-0.5 shrink-0" />
          {bin.warning}
        </p>
      )}
    </div>
  );
}
