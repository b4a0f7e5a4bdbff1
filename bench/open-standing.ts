import { Client } from "pg";
import type { Wired } from "~/main/wiring";
import { signInToDemo, traysOf, whoIs } from "~/operations/index.server";
import { FIRST_ROWS } from "~/operations/lists/list-conversations";
import { type Figure, medianMs } from "./measure";
import { recordedStatements } from "./recorded-statements";

const RUNS = 100;
const MOST = 3;

/**
 * Opening a standing, its first rows out of 200,000 conversations: all that the page's loaders do on the server, from the
 * session's token to the rows with their words, against the SQL that they send, sent raw through the same driver.
 */
export async function openStanding({ deps }: Wired, url: string): Promise<Figure> {
  const { loadersOf } = await import("./page-loaders");
  const session = await signInToDemo(deps, "ines");
  const token = session.ok ? session.value.token : "";
  const member = await whoIs(deps, token);
  const [grant] = member === null ? [] : await traysOf(deps, member);
  if (member === null || grant === undefined) throw new Error("the bench has nobody to sign in");
  const load = loadersOf(deps, token, grant.tray.slug);
  const page = await load();
  if (page.rows !== FIRST_ROWS) throw new Error(`the standing has ${page.rows} rows instead of ${FIRST_ROWS}`);
  const statements = await recordedStatements(load);
  const raw = new Client({ connectionString: url });
  await raw.connect();
  const sendRaw = async () => {
    for (const { text, values } of statements) await raw.query(text, values as unknown[]);
  };
  // By turns, so that a noisy moment of the machine meets both.
  const rounds: { floor: number; measured: number }[] = [];
  for (let round = 0; round < 3; round += 1) {
    rounds.push({ floor: await medianMs(RUNS, sendRaw), measured: await medianMs(RUNS, load) });
  }
  await raw.end();
  const middle = rounds.toSorted((a, b) => a.measured / a.floor - b.measured / b.floor)[1] ?? {
    floor: 1,
    measured: Infinity,
  };
  const ratio = middle.measured / middle.floor;
  return {
    name: `opening a standing, ${FIRST_ROWS} rows of 200,000 conversations (${statements.length} statements)`,
    unit: "ms",
    ...middle,
    floorName: "its raw SQL",
    ratio,
    asked: `at most ${MOST}`,
    holds: ratio <= MOST,
  };
}
