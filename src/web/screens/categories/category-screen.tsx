import { Pencil, Pin } from "lucide-react";
import { lazy, Suspense, useMemo } from "react";
import { Link } from "react-router";
import { scopeName } from "../../../core/lists/scope";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import type { Say } from "../../../texts/say";
import type { RowView } from "../../server/base/row-view.server";
import type { CategoryView } from "../../server/categories/category-view.server";
import { CategoryTab } from "../../ui/category-tab";
import { useSay } from "../../ui/texts/use-say";
import { TurnLine } from "../../ui/turn-line";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import { usePin } from "../frame/use-pin";

const PairedBars = lazy(() => import("../../ui/paired-bars"));

const TOOL =
  "flex h-8 items-center gap-1.5 rounded-control border border-rule px-2.5 font-semibold hover:border-act hover:text-act";

/** A category: what is open, resting and settled under it, how that went, its records and its people. */
export function CategoryScreen({ category, under, lists, standings, records, people, weeks }: CategoryView) {
  const say = useSay(categoriesTexts, commonTexts);
  const points = useMemo(
    () => weeks.map(({ from, began, settled }) => ({ label: from, first: began, second: settled })),
    [weeks],
  );
  const { tray, mayDecide } = useTray();
  const pin = usePin();
  const countIn = (scope: string) => standings.find(({ standing }) => standing === scope)?.count ?? 0;
  const filled = lists.filter(({ rows }) => rows.length > 0);
  const above = category.path.slice(0, -1);
  return (
    <main
      aria-label={category.name}
      className="mx-2 mt-2.5 flex min-h-0 flex-1 flex-col rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex flex-wrap items-end gap-x-3 gap-y-1 border-b border-rule px-4 py-2">
        <div className="mr-auto min-w-0">
          <p className="text-sm text-soft">
            <Link to={`/${tray.slug}/categories`} className="hover:text-act hover:underline">
              {say("common.categories")}
            </Link>{" "}
            › {above.map((name) => `${name} › `)}
          </p>
          <h1 className="flex items-center gap-3 font-serif text-xl">
            {category.name}
            <span className="font-sans">
              <CategoryTab code={category.code} name={category.name} ink={category.ink} short />
            </span>
            {category.retired && (
              <span className="font-sans text-sm text-soft">{say("categories.retiredNoLongerOffered")}</span>
            )}
          </h1>
          {category.description !== "" && <p className="text-sm text-soft">{category.description}</p>}
        </div>
        {mayDecide && (
          <button
            type="button"
            onClick={() => pin({ kind: "category", target: category.id, forAll: "false" })}
            className={TOOL}
          >
            <Pin size={14} aria-hidden /> {say("categories.pin")}
          </button>
        )}
        <Link to={`/${tray.slug}/categories?edit=${category.id}`} className={TOOL}>
          <Pencil size={14} aria-hidden /> {say("common.change")}
        </Link>
      </div>
      <div className="grid min-h-0 flex-1 overflow-y-auto [scrollbar-width:thin] lg:grid-cols-[minmax(0,1fr)_372px]">
        <div className="min-w-0">
          {filled.length === 0 && (
            <p className="px-4 py-5 text-soft">{say("categories.noConversationHasThisCategory")}</p>
          )}
          {filled.map((list) => (
            <ListOf key={list.scope} {...list} count={countIn(list.scope)} categoryId={category.id} />
          ))}
        </div>
        <div className="border-rule px-4 py-3 lg:border-l">
          <h2 className="text-sm font-semibold">{say("categories.twelveWeeks")}</h2>
          <Suspense fallback={<div className="h-[178px]" />}>
            <PairedBars
              points={points}
              names={{ first: say("categories.beganInside"), second: say("categories.settledInside") }}
              words={trendInWords(say, weeks)}
              interval={3}
            />
          </Suspense>
          {under.length > 0 && (
            <>
              <h2 className="mt-4 text-sm font-semibold">{say("categories.subcategories")}</h2>
              <p className="mt-1 flex flex-wrap gap-1.5">
                {under.map((one) => (
                  <Link key={one.id} to={`/${tray.slug}/categories/${one.id}`} className="hover:underline">
                    <CategoryTab code={one.code} name={one.name} ink={one.ink} retired={one.retired} />
                  </Link>
                ))}
              </p>
            </>
          )}
          <Counted
            title={say("common.records")}
            none={say("categories.nothingOfItIsFiled")}
            lines={records.map(({ code, title, count }) => ({
              key: code,
              count,
              to: `/${tray.slug}/records/${encodeURIComponent(code)}`,
              words: (
                <>
                  <span className="text-soft">{code}</span> <span className="font-serif">{title}</span>
                </>
              ),
            }))}
          />
          <Counted
            title={say("categories.people")}
            none={say("categories.nobodyYet")}
            lines={people.map(({ address, name, count }) => ({
              key: address,
              count,
              words: name || address,
              to: `/${tray.slug}/open?category=${category.id}&person=${encodeURIComponent(address)}`,
            }))}
          />
        </div>
      </div>
    </main>
  );
}

type ListOfProps = {
  readonly scope: CategoryView["lists"][number]["scope"];
  readonly now: CategoryView["lists"][number]["now"];
  readonly rows: readonly RowView[];
  readonly count: number;
  readonly categoryId: string;
};

function ListOf({ scope, now, rows, count, categoryId }: ListOfProps) {
  const say = useSay(categoriesTexts, commonTexts);
  const { tray } = useTray();
  const list = `/${tray.slug}/${scope}`;
  return (
    <section aria-label={say(scopeName(scope))}>
      <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
        {say(scopeName(scope))} <span className="font-normal text-soft tabular-nums">{say({ figure: count })}</span>
        {count > rows.length && (
          <Link to={`${list}?category=${categoryId}`} className="ml-auto font-normal text-act hover:underline">
            {say("categories.allOfThem")}
          </Link>
        )}
      </h2>
      <ul>
        {rows.map((row) => (
          <li
            key={row.id}
            className="relative grid h-[31px] grid-cols-[120px_minmax(0,1fr)_auto] items-center gap-3 border-b border-hair px-4 hover:bg-ground/70 md:grid-cols-[140px_minmax(0,1fr)_148px_92px_28px]"
          >
            <span className={`truncate ${row.unread ? "font-[650]" : ""}`}>{row.who}</span>
            <Link
              to={`${list}/${row.id}?category=${categoryId}`}
              className="truncate font-serif after:absolute after:inset-0"
            >
              {row.subject || say("common.noSubject")}
            </Link>
            <span className="max-md:hidden">
              <TurnLine
                marks={row.marks}
                turn={row.turn}
                turnSince={row.turnSince}
                standing={row.standing}
                expectedAt={row.expectedAt}
                now={now}
              />
            </span>
            <span className="text-end text-sm whitespace-nowrap text-soft">{row.when}</span>
            <span className="max-md:hidden">
              <OwnerBadge ownerId={row.ownerId} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

type CountedProps = {
  readonly title: string;
  readonly none: string;
  readonly lines: readonly {
    readonly key: string;
    readonly words: React.ReactNode;
    readonly count: number;
    readonly to: string;
  }[];
};

function Counted({ title, none, lines }: CountedProps) {
  const say = useSay();
  return (
    <section aria-label={title} className="mt-4">
      <h2 className="border-b border-rule pb-0.5 text-sm font-semibold">{title}</h2>
      {lines.length === 0 && <p className="py-1 text-sm text-soft">{none}</p>}
      <ul>
        {lines.map(({ key, words, count, to }) => (
          <li key={key} className="relative flex items-center gap-3 border-b border-hair py-[3px] hover:bg-ground/70">
            <Link to={to} className="min-w-0 flex-1 truncate after:absolute after:inset-0">
              {words}
            </Link>
            <span className="text-sm text-soft tabular-nums">{say({ figure: count })}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function trendInWords(say: Say<typeof categoriesTexts>, weeks: CategoryView["weeks"]): string {
  const sum = (of: "began" | "settled") => weeks.reduce((all, week) => all + week[of], 0);
  return say("categories.inWeeksConversationsBeganAnd", {
    count: weeks.length,
    began: sum("began"),
    settled: sum("settled"),
  });
}
