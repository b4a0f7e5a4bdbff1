import { Link } from "react-router";
import { WITHOUT } from "../../../core/lists/filter";
import { OPEN_STANDINGS } from "../../../core/lists/scope";
import { STANDING_NAMES } from "../../../core/standing/standing";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import { CategoryTab } from "../../ui/category-tab";
import { ColumnHead, DataTable, RowHead } from "../../ui/layout/data-table";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";

export type Against = "owner" | "standing";

export function isAgainst(text: string): text is Against {
  return text === "owner" || text === "standing";
}

type Cell = { readonly category: string | null; readonly against: string | null; readonly count: number };

type Column = { readonly key: string | null; readonly name: string; readonly query: (category: string) => string };

/** A table of counts: a line for each category that something open has, and one for what has none. */
export function MatrixTable({ against, cells }: { against: Against; cells: readonly Cell[] }) {
  const say = useSay(categoriesTexts, commonTexts);
  const { tray, categories, members } = useTray();
  const byOwner: Column[] = [
    ...members.map(({ id, name }) => [id, name] as const),
    [null, say("common.nobody")] as const,
  ].map(([key, name]) => ({ key, name, query: (category) => `open?owner=${key ?? WITHOUT}&category=${category}` }));
  const byStanding: Column[] = OPEN_STANDINGS.map((key) => ({
    key,
    name: say(STANDING_NAMES[key]),
    query: (category) => `${key}?category=${category}`,
  }));
  const columns = (against === "owner" ? byOwner : byStanding).filter(({ key }) =>
    cells.some((cell) => cell.against === key),
  );
  const counts = new Map(cells.map((cell) => [`${cell.category} ${cell.against}`, cell.count]));
  const countOf = (category: string | null, key: string | null) => counts.get(`${category} ${key}`) ?? 0;
  const totalOf = (category: string | null) =>
    cells.filter((cell) => cell.category === category).reduce((sum, { count }) => sum + count, 0);
  const most = Math.max(1, ...cells.filter(({ category }) => category !== null).map(({ count }) => count));
  const lines = categories.filter(({ id }) => cells.some(({ category }) => category === id));
  if (cells.length === 0) return <p className="px-4 py-6 text-soft">{say("categories.nothingIsOpenInThis")}</p>;
  return (
    <div className="min-h-0 flex-1 overflow-auto [scrollbar-width:thin]">
      <DataTable
        head={
          <>
            <ColumnHead className="sticky left-0 w-72 min-w-60 bg-paper pl-4">{say("categories.category")}</ColumnHead>
            {columns.map(({ key, name }) => (
              <ColumnHead key={key} side="center" className="w-24 border-l font-semibold text-ink">
                {against === "owner" ? <OwnerBadge ownerId={key} /> : null}
                <span className={against === "owner" ? "sr-only" : ""}>{name}</span>
              </ColumnHead>
            ))}
            <ColumnHead side="right" className="w-24 border-l">
              {say("categories.inAll")}
            </ColumnHead>
          </>
        }
      >
        {lines.map(({ id, code, name, ink, retired, depth, path }) => (
          <tr key={id} className="group">
            <RowHead
              isTight
              className="sticky left-0 bg-paper group-hover:bg-ground"
              style={{ paddingLeft: 16 + depth * 22 }}
            >
              <Link to={`/${tray.slug}/categories/${id}`} aria-label={path.join(" › ")} className="hover:underline">
                <CategoryTab code={code} name={name} ink={ink} retired={retired} />
              </Link>
            </RowHead>
            {columns.map((column) => (
              <CountCell
                key={column.key}
                count={countOf(id, column.key)}
                share={countOf(id, column.key) / most}
                ink={ink}
                to={`/${tray.slug}/${column.query(id)}`}
                label={`${name}, ${column.name}`}
              />
            ))}
            <CountCell
              count={totalOf(id)}
              share={0}
              ink={ink}
              to={`/${tray.slug}/open?category=${id}`}
              label={say("categories.nameInAll", { name })}
            />
          </tr>
        ))}
        <tr className="group">
          <RowHead
            isTight
            className="sticky left-0 border-t border-t-rule bg-paper pl-4 text-soft group-hover:bg-ground"
          >
            {say("categories.noCategory")}
          </RowHead>
          {columns.map((column) => (
            <CountCell
              key={column.key}
              count={countOf(null, column.key)}
              share={0}
              ink="graphite"
              to={`/${tray.slug}/${column.query(WITHOUT)}`}
              label={say("categories.noCategoryOf", { name: column.name })}
              isLast
            />
          ))}
          <CountCell
            count={totalOf(null)}
            share={0}
            ink="graphite"
            to={`/${tray.slug}/open?category=${WITHOUT}`}
            label={say("categories.noCategoryInAll")}
            isLast
          />
        </tr>
      </DataTable>
    </div>
  );
}

type CountCellProps = {
  readonly count: number;
  /** How much of the greatest number of the table it is: how strongly its ground is inked. */
  readonly share: number;
  readonly ink: string;
  readonly to: string;
  readonly label: string;
  readonly isLast?: boolean;
};

const STRONGEST = 38;

function CountCell({ count, share, ink, to, label, isLast = false }: CountCellProps) {
  const say = useSay();
  return (
    <td
      className={`border-l border-rule p-0 group-hover:bg-ground ${isLast ? "border-t" : "border-b border-b-hair"}`}
      style={
        share === 0
          ? undefined
          : { background: `color-mix(in oklab, var(--${ink}) ${Math.round(share * STRONGEST)}%, var(--paper))` }
      }
    >
      {count > 0 && (
        <Link
          to={to}
          aria-label={`${label}: ${count}`}
          className="block px-3 py-[5px] text-end tabular-nums hover:text-act hover:underline focus-visible:outline-offset-[-2px]"
        >
          {say({ figure: count })}
        </Link>
      )}
    </td>
  );
}
