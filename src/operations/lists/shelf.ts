import { type PinId, type RecordId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { ageBands } from "../../core/lists/bands";
import { readFilter } from "../../core/lists/filter";
import { isScope } from "../../core/lists/scope";
import { membersOfTray, type TrayGrant } from "../../storage/access/index";
import { categoriesOf } from "../../storage/facts/index";
import {
  addPin,
  countOfList,
  openCounts,
  orderPins,
  type PinKind,
  pinsOf,
  removePin,
  removeSavedView,
  renamePin,
  type SavedView,
  type ShelfPin,
  savedViewsOf,
  saveView,
} from "../../storage/lists/index";
import { recordsByIds } from "../../storage/records/index";
import { listTexts } from "../../texts/en/list";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { namesIn } from "../people/get-tray";
import type { Refusal } from "../refusals/refusal";

const said = saidOf(listTexts);

/** A place with what it is called, how many open conversations are there, and where it leads; null when what it stood for is gone. */
export type ShelfPlace<Note = string> = ShelfPin & {
  readonly title: string;
  readonly note: Note;
  readonly count: number;
  readonly leadsTo: {
    readonly kind: PinKind;
    readonly code: string;
    readonly scope: string;
    readonly query: string;
  } | null;
};

// A strip that is read at a glance; more is a menu, which the command field is already.
const MAX_PLACES = 40;
const MAX_VIEWS = 100;

/** A member's shelf with its counts, and her saved views. */
export async function shelfOf(
  deps: Deps,
  grant: TrayGrant,
): Promise<{ readonly places: readonly ShelfPlace<Sayable>[]; readonly views: readonly SavedView[] }> {
  const [places, views] = await Promise.all([pinsOf(deps.db, grant), savedViewsOf(deps.db, grant)]);
  if (places.length === 0) return { places: [], views };
  const recordIds = places.flatMap(({ kind, target }) => (kind === "record" ? [trustedId<RecordId>(target)] : []));
  const [counts, records, { categories, members }] = await Promise.all([
    deps.memory.recall(grant.tray.id, "counts", "shelf", () => openCounts(deps.db, grant)),
    recordIds.length === 0 ? [] : recordsByIds(deps.db, grant, recordIds),
    namesIn(deps, grant),
  ]);
  const named = (place: ShelfPin): Named | null => {
    switch (place.kind) {
      case "record": {
        const record = records.find(({ id }) => id === place.target);
        return record === undefined
          ? null
          : { title: record.title, note: record.code, ...leading(`record=${place.target}`, record.code) };
      }
      case "category":
        return titled(
          categories.find(({ id }) => id === place.target),
          said("list.placeIsCategory"),
          `category=${place.target}`,
        );
      case "member":
        return titled(
          members.find(({ id }) => id === place.target),
          said("list.placeIsColleague"),
          `owner=${place.target}`,
        );
      case "view": {
        const view = views.find(({ id }) => id === place.target);
        return view === undefined
          ? null
          : { title: view.name, note: said("list.placeIsSavedView"), code: "", scope: view.scope, query: view.query };
      }
    }
  };
  const shelf = places.map(async (place): Promise<ShelfPlace<Sayable>> => {
    const found = named(place);
    if (found === null) return { ...place, title: "", note: "", count: 0, leadsTo: null };
    const { title, note, ...where } = found;
    const count = place.kind === "view" ? await countOfView(deps, grant, where) : (counts.get(place.target) ?? 0);
    return { ...place, title, note, count, leadsTo: { kind: place.kind, ...where } };
  });
  // One of everybody’s that leads nowhere for her may be a record that she is not to know of.
  const shown = (await Promise.all(shelf)).filter(({ isForAll, leadsTo }) => !isForAll || leadsTo !== null);
  return { places: shown, views };
}

type Where = { readonly code: string; readonly scope: string; readonly query: string };
type Named = Where & { readonly title: string; readonly note: Sayable };

function leading(query: string, code = ""): Where {
  return { code, scope: "open", query };
}

function titled(thing: { readonly name: string } | undefined, note: Said, query: string): Named | null {
  return thing === undefined ? null : { title: thing.name, note, ...leading(query) };
}

function countOfView(deps: Deps, grant: TrayGrant, { scope, query }: Where): Promise<number> | number {
  if (!isScope(scope)) return 0;
  const filter = readFilter(new URLSearchParams(query));
  return countOfList(deps.db, grant, { scope, filter, ageBands: ageBands(deps.now()) });
}

/** What a place is to stand for. */
export type NewPlace = { readonly kind: PinKind; readonly target: string; readonly isForAll: boolean };

/** Puts a place on the member's shelf, or on everybody's if she leads the tray. */
export async function pinPlace(deps: Deps, grant: TrayGrant, place: NewPlace): Promise<Result<PinId, Refusal>> {
  if (place.isForAll && grant.role !== "lead") return err({ kind: "leads-only" });
  if (!(await isThere(deps, grant, place))) return err({ kind: "no-such", what: "place" });
  const there = await pinsOf(deps.db, grant);
  if (there.length >= MAX_PLACES) return err({ kind: "too-many", most: MAX_PLACES });
  const same = there.find(({ kind, target }) => kind === place.kind && target === place.target);
  if (same !== undefined) return ok(same.id);
  const id = trustedId<PinId>(deps.newId());
  await addPin(deps.db, grant, { id, ...place, name: "", folder: "" });
  return ok(id);
}

async function isThere(deps: Deps, grant: TrayGrant, { kind, target }: NewPlace): Promise<boolean> {
  switch (kind) {
    case "record":
      return (await recordsByIds(deps.db, grant, [trustedId<RecordId>(target)])).length > 0;
    case "category":
      return (await categoriesOf(deps.db, grant.tray.id)).some(({ id }) => id === target);
    case "member":
      return (await membersOfTray(deps.db, grant.tray.id)).some(({ id }) => id === target);
    case "view":
      return (await savedViewsOf(deps.db, grant)).some(({ id }) => id === target);
  }
}

/** Changes the words of a place, for the member alone. */
export async function namePlace(
  deps: Deps,
  grant: TrayGrant,
  id: PinId,
  words: Pick<ShelfPin, "name" | "folder">,
): Promise<Result<null, Refusal>> {
  return (await renamePin(deps.db, grant, id, words)) ? ok(null) : err({ kind: "no-such", what: "place" });
}

/** Takes a place off the shelf; a saved view that stood there is forgotten with it. */
export async function unpinPlace(deps: Deps, grant: TrayGrant, id: PinId): Promise<Result<null, Refusal>> {
  const place = (await pinsOf(deps.db, grant)).find((one) => one.id === id);
  if (place?.kind === "view") {
    await removeSavedView(deps.db, grant, place.target);
    return ok(null);
  }
  return (await removePin(deps.db, grant, id)) ? ok(null) : err({ kind: "no-such", what: "place" });
}

/** Puts the member's places in an order. */
export function arrangePlaces(deps: Deps, grant: TrayGrant, ids: readonly PinId[]): Promise<void> {
  return orderPins(deps.db, grant, ids);
}

/** Saves a list with its filter under a name, and puts it on the member's shelf. */
export async function editView(
  deps: Deps,
  grant: TrayGrant,
  view: Omit<SavedView, "id">,
): Promise<Result<null, Refusal>> {
  const there = await savedViewsOf(deps.db, grant);
  if (there.length >= MAX_VIEWS) return err({ kind: "too-many", most: MAX_VIEWS });
  await saveView(deps.db, grant, { id: deps.newId(), ...view }, deps.now());
  const kept = (await savedViewsOf(deps.db, grant)).find(({ name }) => name === view.name);
  if (kept === undefined) return err({ kind: "no-such", what: "place" });
  const pinned = await pinPlace(deps, grant, { kind: "view", target: kept.id, isForAll: false });
  return pinned.ok ? ok(null) : pinned;
}
