import { lazy, type ReactNode, useState } from "react";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../../../core/kernel/ids";
import type { ShelfPlace } from "../../../operations/index.server";
import { Opens } from "../../keys/key-desk";
import type { ListedRowView } from "../../server/list/list-view.server";
import type { DialogKind } from "../deciding/dialog-props";
import type { DecisionTarget, PostedDecision } from "../deciding/posted-decision";
import { type DropTarget, useLetGo } from "../frame/dragging";
import { useShelf, useTray } from "../frame/tray-data";

// Asked once, as a rule: she has it remembered.
const FilingQuestion = lazy(() => import("../deciding/filing-question"));

type Drops = {
  /** What has the cursor or is chosen. */
  readonly decided: DecisionTarget | null;
  readonly rows: readonly ListedRowView[];
  readonly isSelected: (id: string) => boolean;
  readonly decide: (decision: PostedDecision, about: DecisionTarget) => void;
  readonly ask: (dialog: DialogKind, about: DecisionTarget) => void;
};

type Filing = { readonly recordId: RecordId; readonly code: string; readonly about: DecisionTarget };

/** What dropping rows on the flow bar and on places of the shelf does, and the question that filing asks once. */
export function useDrops({ decided, rows, isSelected, decide, ask }: Drops): {
  put: (place: ShelfPlace, about: DecisionTarget) => void;
  question: ReactNode;
} {
  const { preferences } = useTray();
  const shelf = useShelf();
  const [filing, setFiling] = useState<Filing | null>(null);
  const put = (place: ShelfPlace, about: DecisionTarget) => {
    if (place.leadsTo === null) return;
    if (place.kind === "category")
      decide({ kind: "categorise", categoryId: trustedId<CategoryId>(place.target), give: true }, about);
    if (place.kind === "member") decide({ kind: "assign", ownerId: trustedId<MemberId>(place.target) }, about);
    if (place.kind !== "record") return;
    const { dropOnRecord } = preferences;
    const recordId = trustedId<RecordId>(place.target);
    const { code } = place.leadsTo;
    if (dropOnRecord === null) setFiling({ recordId, code, about });
    else
      decide(
        { kind: "file", recordId, called: code, settle: dropOnRecord === "file-and-settle", means: "shelf" },
        about,
      );
  };
  const letGo = (onto: DropTarget, about: DecisionTarget) => {
    if (onto.kind === "place") {
      const place = shelf.find(({ id }) => id === onto.place);
      if (place !== undefined) put(place, about);
    } else if (onto.standing === "settled") decide({ kind: "settle" }, about);
    else if (onto.standing === "our-move") decide({ kind: "keep" }, about);
    else ask(onto.standing === "waiting" ? "expect" : "rest", about);
  };
  useLetGo((rowId, onto) => {
    const row = rows.find(({ id }) => id === rowId);
    if (row === undefined) return;
    // A row among those chosen takes them all along.
    letGo(onto, isSelected(row.id) && decided !== null ? decided : { rows: [row], everything: null });
  });
  const question = filing !== null && (
    <Opens>
      <FilingQuestion
        code={filing.code}
        onClose={() => setFiling(null)}
        onChoose={(settle) => {
          const { recordId, code, about } = filing;
          setFiling(null);
          decide({ kind: "file", recordId, called: code, settle, means: "shelf" }, about);
        }}
      />
    </Opens>
  );
  return { put, question };
}
