import { type Instant, later, WEEK } from "../../../core/kernel/instant";
import type { Scope } from "../../../core/lists/scope";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type {
  CategoryCare,
  CategoryPage,
  CategoryUses,
  ListedRow,
  Preferences,
} from "../../../operations/index.server";
import { type Reading, rowView } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** The categories of a tray for whoever looks after them, and what was lately changed; `uses` those of one that is to end. */
export function careView(
  { categories, steps, mayChange, membersMay }: CategoryCare,
  { categoriesListed }: Preferences,
  uses: CategoryUses | null,
  { now, zone }: Reading,
) {
  return {
    categories: categories.map(({ trayId, ...category }) => ({
      ...category,
      common: trayId === null,
      mayChange: trayId === null ? mayChange.common : mayChange.own,
      listedForMe: categoriesListed[category.id] ?? null,
    })),
    mayChange,
    membersMay,
    steps: steps.map(({ id, at, by, words, undoneAt }) => ({
      id,
      by,
      words,
      isUndone: undoneAt !== null,
      when: speak(dayAndTime(at, now, zone)),
    })),
    uses,
  };
}

export type CareView = ReturnType<typeof careView>;
export type CaredCategory = CareView["categories"][number];

type ListOfCategory = { readonly scope: Scope; readonly rows: readonly ListedRow[] };

/** A category with its newest conversations and its figures, ready to be drawn. */
export function categoryView(page: CategoryPage, lists: readonly ListOfCategory[], reading: Reading) {
  const { id, name, code, ink, description, retired, path } = page.category;
  const { standings, records, people, weeks } = page.figures;
  const beginOf = (at: number): Instant => later(page.until, (at - weeks.length) * WEEK);
  return {
    category: { id, name, code, ink, description, retired, path },
    under: page.under.map((one) => ({
      id: one.id,
      name: one.name,
      code: one.code,
      ink: one.ink,
      retired: one.retired,
    })),
    lists: lists.map(({ scope, rows }) => ({
      scope,
      now: reading.now,
      rows: rows.map((row) => rowView(row, reading)),
    })),
    standings,
    records,
    people,
    weeks: weeks.map((week, at) => ({ ...week, from: speak(dayInWords(beginOf(at), reading.now, reading.zone)) })),
  };
}

export type CategoryView = ReturnType<typeof categoryView>;
