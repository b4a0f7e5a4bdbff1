import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { loader as recordChoices } from "../routes/record-choices";
import type { RowView } from "../server/words.server";
import { Button } from "../ui/button";
import { CategoryTab } from "../ui/category-tab";
import { Picker } from "../ui/picker";
import { DayDialog } from "./day-dialog";
import type { PostedDecision } from "./decisions";
import { JoinPicker } from "./join-picker";
import { NoteDialog } from "./note-dialog";
import { OwnerStamp } from "./sheet";
import { useTray } from "./tray-data";

export type DialogKind = "join" | "assign" | "categories" | "file" | "expect" | "rest" | "note" | "keys";

type DialogProps = {
  readonly row: RowView;
  readonly onDecide: (decision: PostedDecision) => void;
  readonly onClose: () => void;
};

/** The dialog that a key or a button opened, about one conversation. */
export function DecisionDialogs({ kind, ...props }: DialogProps & { kind: Exclude<DialogKind, "keys"> }) {
  switch (kind) {
    case "assign":
      return <AssignPicker {...props} />;
    case "categories":
      return <CategoryPicker {...props} />;
    case "file":
      return <RecordPicker {...props} />;
    case "join":
      return <JoinPicker {...props} />;
    case "note":
      return <NoteDialog {...props} />;
    case "expect":
    case "rest":
      return <DayDialog kind={kind} {...props} />;
  }
}

const NOBODY = "nobody";

function AssignPicker({ row, onDecide, onClose }: DialogProps) {
  const { members, member } = useTray();
  // Oneself first: taking a conversation is the most frequent assignment.
  const ordered = [...members.filter(({ id }) => id === member.id), ...members.filter(({ id }) => id !== member.id)];
  const people = ordered.map(({ id, name }) => ({
    id: id as string,
    words: id === member.id ? `${name} me` : name,
    on: id === row.ownerId,
    face: (
      <span className="flex items-center gap-3">
        <OwnerStamp ownerId={id} />
        {id === member.id ? `${name} (you)` : name}
      </span>
    ),
  }));
  const nobody = {
    id: NOBODY,
    words: "nobody no owner",
    on: row.ownerId === null,
    face: (
      <span className="flex items-center gap-3">
        <OwnerStamp ownerId={null} />
        Nobody
      </span>
    ),
  };
  return (
    <Picker
      title="Assign"
      prompt="Type a colleague's name"
      empty="No colleague of this tray has that name."
      choices={row.ownerId === null ? people : [...people, nobody]}
      onPick={(id) => onDecide({ kind: "assign", owner: id === NOBODY ? "" : id })}
      onClose={onClose}
    />
  );
}

function CategoryPicker({ row, onDecide, onClose }: DialogProps) {
  const { categories } = useTray();
  const pathOf = (id: string | null): string => {
    const category = categories.find((one) => one.id === id);
    return category === undefined ? "" : `${pathOf(category.parentId)}${category.name} `;
  };
  return (
    <Picker
      title="Categories"
      prompt="Type a category's name or code"
      empty="There is no such category."
      choices={categories.map(({ id, code, name, ink, parentId }) => ({
        id,
        words: `${code} ${pathOf(id)}`,
        on: row.categoryIds.includes(id),
        face: (
          <span className={`flex items-center gap-2 ${parentId === null ? "" : "pl-5"}`}>
            <CategoryTab code={code} name={name} ink={ink} />
          </span>
        ),
      }))}
      onPick={(id) =>
        onDecide({ kind: "categorise", category: id, give: !row.categoryIds.some((given) => given === id) })
      }
      onClose={onClose}
      footer={
        <span className="flex items-center justify-between">
          <span className="text-sm text-soft">Several can be given, one after the other.</span>
          <Button onClick={onClose}>Done</Button>
        </span>
      }
    />
  );
}

function RecordPicker({ row, onDecide, onClose }: DialogProps) {
  const { tray } = useTray();
  const { load, data: records, state } = useFetcher<typeof recordChoices>();
  const [text, setText] = useState("");
  const [settle, setSettle] = useState(true);
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  return (
    <Picker
      title="File to a record"
      prompt="Type a reference code or a title"
      empty={state === "idle" ? "No record has that code or title." : "Looking…"}
      onType={setText}
      choices={(records ?? []).map(({ id, code, title, closed }) => ({
        id,
        words: code,
        on: row.recordCodes.includes(code),
        face: (
          <>
            <span className="inline-block w-[84px] text-sm text-soft">{code}</span>
            <span className="font-serif">{title}</span>
            {closed && <span className="pl-2 text-sm text-soft">closed</span>}
          </>
        ),
      }))}
      onPick={(id) => {
        const code = records?.find((record) => record.id === id)?.code ?? "";
        onDecide({ kind: "file", record: id, code, settle });
      }}
      onClose={onClose}
      footer={
        <label className="flex cursor-pointer items-center gap-2.5">
          <input
            type="checkbox"
            checked={settle}
            onChange={(event) => setSettle(event.target.checked)}
            className="size-4 accent-act"
          />
          Settle it as well
        </label>
      }
    />
  );
}
