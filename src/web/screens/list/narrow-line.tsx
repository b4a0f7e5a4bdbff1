import { X } from "lucide-react";
import { lazy, useState } from "react";
import { Link, useNavigate } from "react-router";
import { AGE_BUCKET_NAMES } from "../../../core/flow/age-buckets";
import { isUrgency, URGENCY_NAMES } from "../../../core/kernel/urgency";
import {
  DIMENSIONS,
  type Dimension,
  isNarrowed,
  MENU_DIMENSIONS,
  MINE,
  narrowingParams,
  THEIRS,
  toggled,
  WITHOUT,
} from "../../../core/lists/narrowing";
import type { SheetView } from "../../../core/lists/sheet-view";
import { calendarDayInWords } from "../../../core/time/day-words";
import { Opens } from "../../keys/key-desk";
import type { ListStart } from "../../server/list/list-view.server";
import { soon } from "../../ui/soon";
import { useTray } from "../frame/tray-data";
import { nameOfGrouping, nameOfOrder } from "../frame/view-names";
import { NarrowMenu } from "../narrowing/narrow-menu";

const SaveViewDialog = lazy(() => import("./save-view-dialog"));

type NarrowLineProps = {
  readonly list: ListStart;
  readonly base: string;
  readonly onView: (view: SheetView | null) => void;
};

/** The line above a list: what it is narrowed by, as chips to take off, and how it is looked at. */
export function NarrowLine({ list, base, onView }: NarrowLineProps) {
  const { tray } = useTray();
  const navigate = useNavigate();
  const nameOf = useValueNames();
  const [isSaving, setSaving] = useState(false);
  // Names that a menu knows and this screen does not, such as those of people.
  const [picked, setPicked] = useState<Readonly<Record<string, string>>>({});
  const narrow = (dimension: Dimension, value: string) => {
    const params = narrowingParams(toggled(list.narrowing, dimension, value)).toString();
    navigate(params === "" ? base : `${base}?${params}`, { preventScrollReset: true });
  };
  return (
    <div className="flex h-[38px] shrink-0 items-center gap-x-1.5 overflow-x-auto px-4">
      <span className="hidden text-soft lg:inline">Filter by</span>
      {MENU_DIMENSIONS.map((dimension) => (
        <NarrowMenu
          key={dimension}
          list={list}
          dimension={dimension}
          onChoose={(value, name) => {
            setPicked((others) => ({ ...others, [`${dimension} ${value}`]: name }));
            narrow(dimension, value);
          }}
        />
      ))}
      {DIMENSIONS.flatMap((dimension) =>
        (list.narrowing[dimension] ?? []).map((value) => (
          <button
            key={`${dimension} ${value}`}
            type="button"
            onClick={() => narrow(dimension, value)}
            aria-label={`Remove filter ${nameOf(dimension, value, picked)}`}
            className="flex h-7 max-w-52 shrink-0 items-center gap-1.5 rounded-control bg-act-soft px-2 font-semibold text-act"
          >
            <span className="truncate">{nameOf(dimension, value, picked)}</span>
            <X size={13} aria-hidden className="shrink-0" />
          </button>
        )),
      )}
      {isNarrowed(list.narrowing) && (
        <>
          <button type="button" onClick={() => navigate(base)} className="shrink-0 px-1 text-act hover:underline">
            Show all
          </button>
          <button type="button" onClick={() => setSaving(true)} className="shrink-0 px-1 text-act hover:underline">
            Save view
          </button>
        </>
      )}
      {list.scope === "waiting" && (
        <Link to={`/${tray.slug}/horizon`} className="ml-auto shrink-0 px-1 text-act hover:underline">
          Horizon
        </Link>
      )}
      <ViewPart view={list.view} onView={onView} />
      {isSaving && (
        <Opens>
          <SaveViewDialog
            scope={list.scope}
            query={narrowingParams(list.narrowing).toString()}
            onClose={() => setSaving(false)}
          />
        </Opens>
      )}
    </div>
  );
}

const WITHOUT_WORDS: Readonly<Partial<Record<Dimension, string>>> = {
  owner: "no owner",
  category: "no category",
  record: "not filed",
};

const YES_NO: Readonly<Partial<Record<Dimension, readonly [yes: string, no: string]>>> = {
  attachment: ["with attachments", "without attachments"],
  unread: ["unread", "read"],
};

const MEANT: Readonly<Record<string, string>> = { [MINE]: "mine", [THEIRS]: "my colleagues’" };

function useValueNames() {
  const { members, categories } = useTray();
  const known: { readonly [D in Dimension]?: (value: string) => string | undefined } = {
    owner: (value) => MEANT[value] ?? members.find(({ id }) => id === value)?.name ?? "a former colleague",
    category: (value) => categories.find(({ id }) => id === value)?.name ?? "a removed category",
    urgency: (value) => (isUrgency(value) ? URGENCY_NAMES[value] : undefined),
    age: (value) => AGE_BUCKET_NAMES[Number(value.slice(1))],
    attachment: (value) => YES_NO.attachment?.[value === "yes" ? 0 : 1],
    unread: (value) => YES_NO.unread?.[value === "yes" ? 0 : 1],
    list: (value) => `list ${value}`,
    before: (value) => `before ${calendarDayInWords(value)}`,
  };
  return (dimension: Dimension, value: string, picked: Readonly<Record<string, string>>): string => {
    if (value === WITHOUT) return WITHOUT_WORDS[dimension] ?? "none";
    const name = known[dimension]?.(value) ?? picked[`${dimension} ${value}`];
    return name ?? (dimension === "record" ? "a record" : value);
  };
}

const viewMenus = soon(() => import("./view-menus"));

const PLAIN = "h-7 px-1.5 text-soft";

/** How the list is looked at: in words until the menus that change it are there. */
function ViewPart({ view, onView }: { view: SheetView; onView: (view: SheetView | null) => void }) {
  const menus = viewMenus.use();
  const [asked, setAsked] = useState<"Grouping" | "Order" | null>(null);
  if (menus !== null) return <menus.default view={view} asked={asked} onView={onView} />;
  const ask = (menu: "Grouping" | "Order") => () => {
    setAsked(menu);
    viewMenus.ask();
  };
  return (
    <div className="ml-auto flex shrink-0 items-center gap-1 whitespace-nowrap">
      <button type="button" aria-label="Grouping" onClick={ask("Grouping")} className={PLAIN}>
        {nameOfGrouping(view.grouping)}
      </button>
      <button type="button" aria-label="Order" onClick={ask("Order")} className={`${PLAIN} lg:mr-[84px]`}>
        {nameOfOrder(view)}
      </button>
    </div>
  );
}
