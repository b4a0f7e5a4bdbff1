import { Client } from "pg";
import { MENU_DIMENSIONS } from "~/core/lists/filter";
import { GROUPINGS, type Grouping } from "~/core/lists/sheet-view";
import type { Wired } from "~/main/wiring";
import {
  categoryMatrix,
  countsForFilter,
  getCategoriesInCare,
  getCategory,
  getLooseEnds,
  getWaiting,
  listConversations,
  looseEndCount,
  signInToDemo,
  traysOf,
  whoIs,
} from "~/operations/index.server";
import { type Figure, medianMs } from "./measure";
import { recordedStatements } from "./recorded-statements";

const RUNS = 3;
const MOST = 3;

/** Opening every standing in every grouping, the counts of every narrow-by menu, and what is looked at by categories, against the SQL that they send: the worst ratio of each. */
export async function openLists({ deps }: Wired, url: string): Promise<Figure[]> {
  const session = await signInToDemo(deps, "ines");
  const member = session.ok ? await whoIs(deps, session.value.token) : null;
  const [grant] = member === null ? [] : await traysOf(deps, member);
  if (member === null || grant === undefined) throw new Error("the bench has nobody to sign in");
  const raw = new Client({ connectionString: url });
  await raw.connect();
  const worst = async (
    name: string,
    works: readonly (readonly [string, () => Promise<unknown>])[],
  ): Promise<Figure> => {
    let slowest = { which: "", measured: 0, floor: 1, ratio: 0 };
    for (const [which, work] of works) {
      const statements = await recordedStatements(work);
      const sendRaw = async () => {
        for (const { text, values } of statements) await raw.query(text, values as unknown[]);
      };
      const floor = await medianMs(RUNS, sendRaw);
      const measured = await medianMs(RUNS, work);
      if (measured / floor > slowest.ratio) slowest = { which, measured, floor, ratio: measured / floor };
    }
    return {
      name: `${name}, the worst of ${works.length}: ${slowest.which}`,
      unit: "ms",
      measured: slowest.measured,
      floor: slowest.floor,
      floorName: "its raw SQL",
      ratio: slowest.ratio,
      asked: `at most ${MOST}`,
      holds: slowest.ratio <= MOST,
    };
  };
  const scopes = ["to-sort", "settled", "open"] as const;
  const view = (grouping: Grouping | null) => ({ order: "date" as const, reversed: false, grouping });
  const lists = scopes.flatMap((scope) =>
    [null, ...GROUPINGS].map(
      (grouping) =>
        [
          `${scope} by ${grouping ?? "nothing"}`,
          () => listConversations(deps, grant, member, { scope, filter: {}, view: view(grouping) }),
        ] as const,
    ),
  );
  const counts = scopes.flatMap((scope) =>
    MENU_DIMENSIONS.map(
      (dimension) =>
        [
          `${scope} by ${dimension}`,
          () => countsForFilter(deps, grant, member, { scope, filter: {}, view: view(null) }, dimension),
        ] as const,
    ),
  );
  const [category] = (await getCategoriesInCare(deps, grant)).categories;
  if (category === undefined) throw new Error("the tray has no category");
  const categories = [
    ["the matrix against owner", () => categoryMatrix(deps, grant, "owner")],
    ["the matrix against standing", () => categoryMatrix(deps, grant, "standing")],
    ["all of them", () => getCategoriesInCare(deps, grant)],
    ["one of them", () => getCategory(deps, grant, category.id)],
  ] as const;
  const figures = [
    await worst("opening a list in a grouping", lists),
    await worst("counts to filter by", counts),
    await worst("looking by categories", categories),
    await worst("what waits and would be forgotten", [
      ["waiting", () => getWaiting(deps, grant)],
      ["loose ends", () => getLooseEnds(deps, grant)],
      ["how many loose ends", () => looseEndCount(deps, grant)],
    ]),
  ];
  await raw.end();
  return figures;
}
