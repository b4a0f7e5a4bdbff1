import { X } from "lucide-react";
import { lazy, useState } from "react";
import { Link, useNavigate } from "react-router";
import { AGE_BUCKET_NAMES } from "../../../core/flow/age-buckets";
import { isUrgency, URGENCY_NAMES } from "../../../core/kernel/urgency";
import {
  DIMENSIONS,
  type Dimension,
  filterParams,
  isFiltered,
  MENU_DIMENSIONS,
  MINE,
  THEIRS,
  toggled,
  WITHOUT,
} from "../../../core/lists/filter";
import type { SheetView } from "../../../core/lists/sheet-view";
import { calendarDayInWords } from "../../../core/time/day-words";
import { commonTexts } from "../../../texts/en/common";
import { frameTexts } from "../../../texts/en/frame";
import { listTexts } from "../../../texts/en/list";
import type { PlainKey } from "../../../texts/say";
import { Opens } from "../../keys/key-desk";
import type { ListStart } from "../../server/list/list-view.server";
import { loadOnFirstInteraction } from "../../ui/load-on-first-interaction";
import { useSay } from "../../ui/texts/use-say";
import { FilterMenu } from "../filter/filter-menu";
import { useTray } from "../frame/tray-data";
import { nameOfGrouping, nameOfOrder } from "../frame/view-names";

const SaveViewDialog = lazy(() => import("./save-view-dialog"));

type FilterBarProps = {
  readonly list: ListStart;
  readonly base: string;
  readonly onView: (view: SheetView | null) => void;
};

/** The line above a list: what it is filtered by, as chips to take off, and how it is looked at. */
export function FilterBar({ list, base, onView }: FilterBarProps) {
  const say = useSay(listTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const nameOf = useValueNames();
  const [isSaving, setSaving] = useState(false);
  // Names that a menu knows and this screen does not, such as those of people.
  const [picked, setPicked] = useState<Readonly<Record<string, string>>>({});
  const toggle = (dimension: Dimension, value: string) => {
    const params = filterParams(toggled(list.filter, dimension, value)).toString();
    navigate(params === "" ? base : `${base}?${params}`, { preventScrollReset: true });
  };
  return (
    <div className="flex h-[38px] shrink-0 items-center gap-x-1.5 overflow-x-auto px-4">
      <span className="hidden shrink-0 whitespace-nowrap text-soft lg:inline">{say("list.filterBy")}</span>
      {MENU_DIMENSIONS.map((dimension) => (
        <FilterMenu
          key={dimension}
          list={list}
          dimension={dimension}
          onChoose={(value, name) => {
            setPicked((others) => ({ ...others, [`${dimension} ${value}`]: name }));
            toggle(dimension, value);
          }}
        />
      ))}
      {DIMENSIONS.flatMap((dimension) =>
        (list.filter[dimension] ?? []).map((value) => (
          <button
            key={`${dimension} ${value}`}
            type="button"
            onClick={() => toggle(dimension, value)}
            aria-label={say("list.removeFilter", { name: nameOf(dimension, value, picked) })}
            className="flex h-7 max-w-52 shrink-0 items-center gap-1.5 rounded-control bg-act-soft px-2 font-semibold text-act"
          >
            <span className="truncate">{nameOf(dimension, value, picked)}</span>
            <X size={13} aria-hidden className="shrink-0" />
          </button>
        )),
      )}
      {isFiltered(list.filter) && (
        <>
          <button type="button" onClick={() => navigate(base)} className="shrink-0 px-1 text-act hover:underline">
            {say("list.showAll")}
          </button>
          <button type="button" onClick={() => setSaving(true)} className="shrink-0 px-1 text-act hover:underline">
            {say("list.saveView")}
          </button>
        </>
      )}
      {list.scope === "waiting" && (
        <Link to={`/${tray.slug}/horizon`} className="ml-auto shrink-0 px-1 text-act hover:underline">
          {say("common.horizon")}
        </Link>
      )}
      <ViewPart view={list.view} onView={onView} />
      {isSaving && (
        <Opens>
          <SaveViewDialog
            scope={list.scope}
            query={filterParams(list.filter).toString()}
            onClose={() => setSaving(false)}
          />
        </Opens>
      )}
    </div>
  );
}

type ListKey = PlainKey<typeof listTexts & typeof commonTexts>;

const WITHOUT_WORDS: Readonly<Partial<Record<Dimension, ListKey>>> = {
  owner: "list.noOwner",
  category: "list.noCategory",
  record: "common.notFiled",
};

const YES_NO: Readonly<Record<"attachment" | "unread", readonly [yes: ListKey, no: ListKey]>> = {
  attachment: ["list.withAttachments", "list.withoutAttachments"],
  unread: ["common.unread", "list.read"],
};

const MEANT: Readonly<Record<string, ListKey>> = { [MINE]: "list.mine", [THEIRS]: "list.myColleagues" };

function useValueNames() {
  const say = useSay(listTexts, commonTexts);
  const { members, categories } = useTray();
  const known: { readonly [D in Dimension]?: (value: string) => string | undefined } = {
    owner: (value) => {
      const meant = MEANT[value];
      return meant === undefined
        ? (members.find(({ id }) => id === value)?.name ?? say("common.aFormerColleague"))
        : say(meant);
    },
    category: (value) => categories.find(({ id }) => id === value)?.name ?? say("common.aRemovedCategory"),
    urgency: (value) => (isUrgency(value) ? say(URGENCY_NAMES[value]) : undefined),
    age: (value) => {
      const name = AGE_BUCKET_NAMES[Number(value.slice(1))];
      return name === undefined ? undefined : say(name);
    },
    attachment: (value) => say(YES_NO.attachment[value === "yes" ? 0 : 1]),
    unread: (value) => say(YES_NO.unread[value === "yes" ? 0 : 1]),
    list: (value) => say("list.list", { value }),
    before: (value) => say("list.before", { value: calendarDayInWords(value) }),
  };
  return (dimension: Dimension, value: string, picked: Readonly<Record<string, string>>): string => {
    if (value === WITHOUT) return say(WITHOUT_WORDS[dimension] ?? "common.none");
    const name = known[dimension]?.(value) ?? picked[`${dimension} ${value}`];
    return name ?? (dimension === "record" ? say("list.aRecord") : value);
  };
}

const viewMenus = loadOnFirstInteraction(() => import("./view-menus"));

const PLAIN = "h-7 px-1.5 text-soft";

/** How the list is looked at: in words until the menus that change it are there. */
function ViewPart({ view, onView }: { view: SheetView; onView: (view: SheetView | null) => void }) {
  const say = useSay(listTexts, frameTexts);
  const menus = viewMenus.use();
  const [asked, setAsked] = useState<"grouping" | "order" | null>(null);
  if (menus !== null) return <menus.default view={view} asked={asked} onView={onView} />;
  const ask = (menu: "grouping" | "order") => () => {
    setAsked(menu);
    viewMenus.ask();
  };
  return (
    <div className="ml-auto flex shrink-0 items-center gap-1 whitespace-nowrap">
      <button type="button" aria-label={say("list.grouping")} onClick={ask("grouping")} className={PLAIN}>
        {nameOfGrouping(say, view.grouping)}
      </button>
      <button type="button" aria-label={say("list.order")} onClick={ask("order")} className={`${PLAIN} lg:mr-[84px]`}>
        {nameOfOrder(say, view)}
      </button>
    </div>
  );
}
