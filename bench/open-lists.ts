import { Client } from "pg";
import { MENU_DIMENSIONS } from "~/core/lists/narrowing";
import { GROUPINGS, type Grouping } from "~/core/lists/sheet-view";
import type { Wired } from "~/main/wiring";
import { countsToNarrow, listConversations, signInToDemo, traysOf, whoIs } from "~/operations/index.server";
import { type Figure, medianMs } from "./measure";
import { recordedStatements } from "./recorded-statements";

const RUNS = 3;
const MOST = 3;

/** Opening every standing in every grouping, and the counts of every narrow-by menu, against the SQL that they send: the worst ratio of each. */
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
      ...{
        unit: "ms",
        measured: slowest.measured,
        floor: slowest.floor,
        floorName: "its raw SQL",
        ratio: slowest.ratio,
      },
      ...{ asked: `at most ${MOST}`, holds: slowest.ratio <= MOST },
    };
  };
  const scopes = ["to-sort", "settled", "open"] as const;
  const view = (grouping: Grouping | null) => ({ order: "date" as const, reversed: false, grouping });
  const lists = scopes.flatMap((scope) =>
    [null, ...GROUPINGS].map(
      (grouping) =>
        [
          `${scope} by ${grouping ?? "nothing"}`,
          () => listConversations(deps, grant, member, { scope, narrowing: {}, view: view(grouping) }),
        ] as const,
    ),
  );
  const counts = scopes.flatMap((scope) =>
    MENU_DIMENSIONS.map(
      (dimension) =>
        [
          `${scope} by ${dimension}`,
          () => countsToNarrow(deps, grant, member, { scope, narrowing: {}, view: view(null) }, dimension),
        ] as const,
    ),
  );
  const figures = [await worst("opening a list in a grouping", lists), await worst("counts to narrow by", counts)];
  await raw.end();
  return figures;
}
