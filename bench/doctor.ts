import { Client } from "pg";
import { instant } from "~/core/kernel/instant";
import type { Wired } from "~/main/wiring";
import { examine } from "~/operations/index.server";
import { operateAtRandom } from "../tests/support/random-operations";
import type { Figure } from "./measure";

const OPERATIONS = 10_000;

/** What differs between what is stored and what the facts come to, after so many random operations. */
export async function doctorFigure({ deps }: Wired, url: string): Promise<Figure> {
  const client = new Client({ connectionString: url });
  await client.connect();
  const clock = { now: instant(Date.UTC(2026, 10, 24, 9, 0)) };
  const quiet = {
    ...deps,
    now: () => clock.now,
    jobs: { enqueue: async () => {} },
    mail: { handOver: async () => ({ kind: "accepted" }) as const },
  };
  const done = await operateAtRandom(
    {
      url,
      deps: quiet,
      clock,
      jobs: [],
      handedOver: [],
      outcomes: [],
      close: async () => {},
      ask: async (sql, values = []) => (await client.query(sql, [...values])).rows,
    },
    OPERATIONS,
    4_711n,
  );
  await client.end();
  const { differences, conversations } = await examine(quiet);
  const carried = [...done.values()].reduce((sum, count) => sum + count, 0);
  return {
    name: `${OPERATIONS.toLocaleString("en")} random operations, ${carried.toLocaleString("en")} of them carried out, on ${conversations} conversations: dockets that differ`,
    unit: "conversations",
    measured: differences.length,
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: "none",
    holds: differences.length === 0,
  };
}
