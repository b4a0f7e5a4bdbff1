import pino from "pino";
import { type RunId, trustedId } from "~/core/kernel/ids";
import { later } from "~/core/kernel/instant";
import { wire } from "~/main/wiring";
import { openRounds, runBulk, sendLaterLetters } from "~/operations/index.server";

// Does what the worker does by the clock, or one run, in a process that may be killed: `killed-work.ts URL rounds`, `URL letters`
// and how many milliseconds ahead the clock is, or the id of the run.
const [databaseUrl = "", what = "", ahead = "0"] = process.argv.slice(2);
const { deps: wired, close } = wire({ databaseUrl, demo: true }, pino({ level: "silent" }));
const deps = { ...wired, now: () => later(wired.now(), Number(ahead)) };
if (what === "rounds") await openRounds(deps);
else if (what === "letters") await sendLaterLetters(deps);
else await runBulk(deps, trustedId<RunId>(what));
await close();
