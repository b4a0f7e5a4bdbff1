import { randomInt } from "node:crypto";
import pino from "pino";
import { jobRunner } from "~/jobs/run-jobs";
import { wire } from "~/main/wiring";
import { listenForChanges } from "~/storage/queue/index";

// A process that has a job in hand which ends it as a kernel does that runs out of memory. Ends with 0 where the job is not done.
const databaseUrl = process.argv[2] ?? "";
const { deps, close } = wire({ databaseUrl, demo: false, poolSize: 2 }, pino({ level: "silent" }));
const number = randomInt(2 ** 31);
const channel = await listenForChanges(databaseUrl, {}, number);
const kill = async () => void process.kill(process.pid, "SIGKILL");
await jobRunner(deps, number, kill).run({ kind: "empty-bins" }, { number: 1, last: false });
await channel.close();
await close();
