import pino from "pino";
import { type RunId, trustedId } from "~/core/kernel/ids";
import { wire } from "~/main/wiring";
import { openRounds, runBulk } from "~/operations/index.server";

// Does what the worker does by the clock, or one run, in a process that may be killed: `killed-work.ts URL rounds`, or the id of the run.
const [databaseUrl = "", what = ""] = process.argv.slice(2);
const { deps, close } = wire({ databaseUrl, demo: true }, pino({ level: "silent" }));
if (what === "rounds") await openRounds(deps);
else await runBulk(deps, trustedId<RunId>(what));
await close();
