import { ArrowDown, ArrowUp, Folder } from "lucide-react";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { RecordId } from "../../../core/kernel/ids";
import {
  type Arranged,
  type Arrangement,
  addedTo,
  movedInto,
  type Placed,
  placedItems,
  removedAt,
  renamedAt,
  type Spot,
  steppedAt,
} from "../../../core/records/arrangement";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { Say } from "../../../texts/say";
import { Opens } from "../../keys/key-desk";
import { Button } from "../../ui/button";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { RecordPicker } from "../deciding/lazy-record-picker";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { AssignTree } from "./assign-tree";

type KnownRecord = {
  readonly id: RecordId;
  readonly code: string;
  readonly title: string;
  readonly closed: boolean;
  readonly open: number;
};

type ArrangementScreenProps = {
  readonly tree: Arrangement;
  readonly version: number;
  readonly isHanded: boolean;
  readonly records: readonly KnownRecord[];
};

const OUTERMOST = "/";
const wayOf = (folders: readonly string[]) => folders.join(OUTERMOST) || OUTERMOST;
const foldersOf = (way: string) => way.split(OUTERMOST).filter((key) => key !== "");

/** A member's own tree of records, which she changes in place; every step is kept at once. */
export function ArrangementScreen({ tree: kept, version, isHanded, records }: ArrangementScreenProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { mayLead } = useTray();
  const [tree, setTree] = useState(kept);
  const [before, setBefore] = useState<Arrangement | null>(null);
  const [asks, setAsks] = useState<readonly string[] | null>(null);
  const { post, refused, isBusy } = useFormAction("arrangement");
  // What the server has counts, also where another window changed it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tree is another one with each version
  useEffect(() => setTree(kept), [version]);
  const change = (next: Arrangement) => {
    setBefore(tree);
    setTree(next);
    post({ do: "keep", tree: JSON.stringify(next), version: String(version) });
  };
  const placed = placedItems(tree);
  const ways = [
    [OUTERMOST, "outermost"] as const,
    ...placed.flatMap(({ item, spot }) =>
      item.kind === "folder"
        ? [[wayOf([...spot.folders, item.key]), say("records.in", { name: item.name })] as const]
        : [],
    ),
  ];
  const addFolder = () =>
    change(addedTo(tree, [], { kind: "folder", key: crypto.randomUUID(), name: say("records.newFolder"), items: [] }));
  return (
    <div className="grid gap-x-8 px-5 py-4 lg:grid-cols-[minmax(0,1fr)_300px]">
      <section aria-label={say("common.myRecords")} className="min-w-0">
        <div className="flex flex-wrap items-center gap-2 pb-2">
          <Button onClick={() => setAsks([])} disabled={isBusy}>
            {say("records.addARecord")}
          </Button>
          <Button onClick={addFolder} disabled={isBusy}>
            {say("records.newFolder")}
          </Button>
          {before !== null && (
            <Button
              look="quiet"
              disabled={isBusy}
              onClick={() => {
                change(before);
                setBefore(null);
              }}
            >
              {say("common.undo")}
            </Button>
          )}
        </div>
        {isHanded && <p className="border-l-[3px] border-act pl-3 text-soft">{say("records.youBeginWithWhatWas")}</p>}
        {refused?.problem != null && (
          <p role="alert" className="py-1 text-late">
            {refused.problem}{" "}
            <button type="button" className="min-h-6 text-act hover:underline" onClick={() => window.location.reload()}>
              {say("records.showItAsItIs")}
            </button>
          </p>
        )}
        {placed.length === 0 && <p className="max-w-xl py-3 text-soft">{say("records.nothingIsHereYetWhat")}</p>}
        <ul className="border-t border-hair">
          {placed.map((one) => (
            <Row
              key={`${wayOf(one.spot.folders)} ${one.item.kind === "folder" ? one.item.key : one.item.recordId}`}
              placed={one}
              record={records.find(({ id }) => one.item.kind === "record" && id === one.item.recordId)}
              ways={ways}
              isBusy={isBusy}
              onStep={(step) => change(steppedAt(tree, one.spot, step))}
              onRename={(name) => change(renamedAt(tree, one.spot, name))}
              onMove={(way) => change(movedInto(tree, one.spot, foldersOf(way)))}
              onRemove={() => change(removedAt(tree, one.spot))}
              onAdd={(folders) => setAsks(folders)}
            />
          ))}
        </ul>
      </section>
      {mayLead && <AssignTree isEmpty={placed.length === 0} />}
      {asks !== null && (
        <Opens>
          <RecordPicker
            target={{ rows: [] }}
            title={say("records.addARecordToMy")}
            onDecide={(decision) => {
              if (decision.kind !== "file") return;
              setAsks(null);
              change(addedTo(tree, asks, { kind: "record", recordId: decision.recordId, name: "" }));
            }}
            onClose={() => setAsks(null)}
          />
        </Opens>
      )}
    </div>
  );
}

type RowProps = {
  readonly placed: Placed;
  readonly record: KnownRecord | undefined;
  readonly ways: readonly (readonly [string, string])[];
  readonly isBusy: boolean;
  readonly onStep: (step: -1 | 1) => void;
  readonly onRename: (name: string) => void;
  readonly onMove: (way: string) => void;
  readonly onRemove: () => void;
  readonly onAdd: (folders: readonly string[]) => void;
};

const INDENT = ["pl-1", "pl-7", "pl-13", "pl-19", "pl-25", "pl-31"] as const;
// One under the other from row to row, whatever each says; on a phone they follow each other.
const TOOLS =
  "shrink-0 items-center gap-x-1 max-sm:flex max-sm:basis-full max-sm:flex-wrap sm:grid sm:grid-cols-[24px_24px_160px_56px_64px_72px]";
const TOOL =
  "grid size-6 place-items-center rounded-control text-soft hover:bg-sunk hover:text-act disabled:opacity-40";

function Row({ placed: { item, spot }, record, ways, isBusy, ...does }: RowProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray } = useTray();
  const [isNaming, setNaming] = useState(false);
  const name = nameOf(say, item, record);
  const own = ways.filter(([way]) => !isInside(way, item, spot));
  return (
    <li
      className={`flex min-h-[34px] flex-wrap items-center gap-x-2 border-b border-hair ${INDENT[Math.min(spot.folders.length, INDENT.length - 1)]}`}
    >
      {item.kind === "folder" && <Folder size={15} aria-hidden className="shrink-0 text-soft" />}
      {isNaming ? (
        <NameField
          name={item.name}
          placeholder={record?.title ?? ""}
          onName={(given) => {
            setNaming(false);
            // A record without a name of its own has its title; a folder has to have one.
            if (given !== item.name && (given !== "" || item.kind === "record")) does.onRename(given);
          }}
        />
      ) : item.kind === "folder" ? (
        <span className="min-w-32 flex-1 truncate font-semibold">{item.name}</span>
      ) : (
        <span className="flex min-w-48 flex-1 items-baseline gap-3">
          <span className="shrink-0 text-sm text-soft sm:w-[84px]">{record?.code}</span>
          <Link
            to={`/${tray.slug}/records/${record?.code ?? ""}`}
            className="min-h-6 min-w-0 truncate font-serif text-[15px] leading-6 hover:text-act hover:underline"
          >
            {name}
          </Link>
          {item.name !== "" && (
            <span className="min-w-0 truncate text-sm text-soft max-sm:hidden">{record?.title}</span>
          )}
          {record !== undefined && record.open > 0 && (
            <span className="shrink-0 text-sm text-soft">{say("records.countOpen", { open: record.open })}</span>
          )}
        </span>
      )}
      <span className={TOOLS}>
        <button
          type="button"
          aria-label={say("common.moveUp", { name })}
          disabled={isBusy}
          className={TOOL}
          onClick={() => does.onStep(-1)}
        >
          <ArrowUp size={14} aria-hidden />
        </button>
        <button
          type="button"
          aria-label={say("common.moveDown", { name })}
          disabled={isBusy}
          className={TOOL}
          onClick={() => does.onStep(1)}
        >
          <ArrowDown size={14} aria-hidden />
        </button>
        <span className="min-w-0 overflow-hidden">
          <Select
            label={say("records.whereLies", { name })}
            look="quiet"
            value={wayOf(spot.folders)}
            choices={own}
            onChoose={(way) => !isBusy && way !== wayOf(spot.folders) && does.onMove(way)}
          />
        </span>
        {item.kind === "record" && <span className="max-sm:hidden" />}
        {item.kind === "folder" && (
          <Button
            look="quiet"
            className="h-6 !px-1 text-sm"
            aria-label={say("records.addARecordTo", { name })}
            disabled={isBusy}
            onClick={() => does.onAdd([...spot.folders, item.key])}
          >
            {say("common.add")}
          </Button>
        )}
        <Button
          look="quiet"
          className="h-6 !px-1 text-sm"
          aria-label={say("records.name", { name })}
          disabled={isBusy}
          onClick={() => setNaming(true)}
        >
          {say("records.nameInside")}
        </Button>
        <Button
          look="quiet"
          className="h-6 !px-1 text-sm"
          aria-label={say("common.removeOf", { name })}
          disabled={isBusy}
          onClick={does.onRemove}
        >
          {say("common.removeInside")}
        </Button>
      </span>
    </li>
  );
}

const nameOf = (say: Say<typeof recordsTexts>, item: Arranged, record: KnownRecord | undefined) =>
  item.name || record?.title || say("records.aRecord");

// A folder does not go into itself or what is in it.
function isInside(way: string, item: Arranged, spot: Spot): boolean {
  return item.kind === "folder" && foldersOf(way).slice(spot.folders.length).includes(item.key);
}

type NameFieldProps = {
  readonly name: string;
  readonly placeholder: string;
  readonly onName: (name: string) => void;
};

function NameField({ name, placeholder, onName }: NameFieldProps) {
  const say = useSay(recordsTexts);
  return (
    <input
      aria-label={say("records.itsName")}
      defaultValue={name}
      placeholder={placeholder}
      maxLength={100}
      // biome-ignore lint/a11y/noAutofocus: it was asked for a moment ago
      autoFocus
      onBlur={(event) => onName(event.target.value.trim())}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") {
          event.currentTarget.value = name;
          event.currentTarget.blur();
        }
      }}
      className="h-7 min-w-0 flex-1 rounded-control border border-act bg-paper px-2"
    />
  );
}
