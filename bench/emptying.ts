import { setTimeout as pause } from "node:timers/promises";
import { Client } from "pg";
import type { Result } from "~/core/kernel/result";
import type { Wired } from "~/main/wiring";
import {
  bearPolicy,
  closeRecord,
  createRecord,
  type Deps,
  disposeOf,
  editPolicy,
  emptyBins,
  getTypes,
  previewDisposal,
  type TrayGrant,
} from "~/operations/index.server";
import { startServerProcess } from "../tests/support/server-process";
import { type BesideMail, besideMail } from "./beside-mail";
import { leadOf } from "./lead";
import type { Figure } from "./measure";
import { fillMillionMessages } from "./million-messages";

// `CONVERSATIONS=20000` for a look; each has five messages.
const CONVERSATIONS = Number(process.env.CONVERSATIONS ?? 200_000);
const ALONE_MS = 15_000;
const MOST_TRANSACTION_MS = 100;
const MOST_OF_ALONE = 1.5;
const MOST_SLOWER = 3;
const THREE_DAYS_MS = 3 * 86_400_000;

function must<T>(result: Result<T, unknown>): T {
  if (!result.ok) throw new Error(`refused: ${JSON.stringify(result.error)}`);
  return result.value;
}

/** The bin emptied, and a record disposed of, in a tray of a million messages while mail comes in over SMTP. */
export async function emptyingFigures(wired: Wired, url: string): Promise<Figure[]> {
  const { deps } = wired;
  const grant = await leadOf(wired);
  const recordId = await recordWithTerm(deps, grant);
  await fillMillionMessages(url, recordId, CONVERSATIONS);
  must(await closeRecord(deps, grant, recordId, true));
  const client = new Client({ connectionString: url });
  await client.connect();
  const binDays = (days: number | null) => client.query("update tray set bin_days = $1", [days]);
  await binDays(null);
  const server = await startServerProcess({ DATABASE_URL: url, SMTP_OUT_PORT: "9", MAIL_MESSAGES_A_MINUTE: "1000000" });
  try {
    const beside = (work: () => Promise<unknown>) => besideMail(url, server.mailPort, work);
    await beside(() => pause(ALONE_MS / 3));
    const alone = await beside(() => pause(ALONE_MS));
    const binned = async () =>
      Number((await client.query("select count(*) from conversation where standing = 'bin'")).rows[0].count);
    const before = await binned();
    const emptying = await beside(async () => {
      await binDays(30);
      while ((await emptyBins(deps)) > 0 || (await binned()) > 0);
    });
    // Its term is over by then; what is delivered has the server's clock, which goes on as it did.
    deps.passTime?.(THREE_DAYS_MS);
    const { previewId, named } = must(await previewDisposal(deps, grant, recordId));
    const disposing = await beside(async () =>
      must(await disposeOf(deps, grant, { name: "Ines Varga" }, recordId, previewId)),
    );
    return [
      ...figuresOf(`emptying bins of ${before} conversations`, emptying, alone),
      ...figuresOf(`disposing of ${named.goes.length} conversations with ${named.messages} messages`, disposing, alone),
    ];
  } finally {
    await server.stop();
    await client.end();
  }
}

async function recordWithTerm(deps: Deps, grant: TrayGrant) {
  const [type] = await getTypes(deps);
  if (type === undefined) throw new Error("there is no type of records");
  const plain = { parentId: null, addresses: "", responsibleId: null, note: "", access: null };
  const record = must(await createRecord(deps, grant, { typeId: type.id, title: "Swell boxes", ...plain }));
  const day = { id: null, name: "A day", period: "P1D", countsFrom: "closing", endsIn: "review" } as const;
  must(await bearPolicy(deps, grant, "record", record.id, must(await editPolicy(deps, grant, day)).id));
  return record.id;
}

function figuresOf(what: string, seen: BesideMail, alone: BesideMail): Figure[] {
  const of = `${CONVERSATIONS * 5} messages`;
  const unused = { floor: Number.NaN, floorName: "", ratio: Number.NaN };
  return [
    {
      name: `the longest transaction while ${what} (${(seen.took / 1_000).toFixed(1)} s) of ${of}`,
      unit: "ms",
      measured: seen.longestTransaction,
      floor: alone.longestTransaction,
      floorName: "of mail alone",
      ratio: seen.longestTransaction / alone.longestTransaction,
      asked: `at most ${MOST_TRANSACTION_MS}, or ${MOST_OF_ALONE} times that of mail alone, where the disk is slow`,
      holds: seen.longestTransaction <= Math.max(MOST_TRANSACTION_MS, MOST_OF_ALONE * alone.longestTransaction),
    },
    {
      name: `mail in at the 99th percentile while ${what} (${seen.delivered} messages)`,
      unit: "ms",
      measured: seen.slow,
      floor: alone.slow,
      floorName: "with nothing beside it",
      ratio: seen.slow / alone.slow,
      asked: `at most ${MOST_SLOWER}`,
      holds: seen.slow / alone.slow <= MOST_SLOWER,
    },
    {
      name: `waits for a lock seen while ${what}`,
      unit: "times",
      measured: seen.lockWaits,
      ...unused,
      asked: "none",
      holds: seen.lockWaits === 0,
    },
  ];
}
