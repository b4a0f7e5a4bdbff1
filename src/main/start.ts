import pino from "pino";
import { migrationGap } from "../storage/migrations/migrate";
import { processEnvironment, readConfig } from "./config";
import { portProblem } from "./port-problem";
import { serve } from "./serve";
import { stopOnSignal } from "./stop-on-signal";
import { wire } from "./wiring";

const config = readConfig(processEnvironment());
if (!config.ok) {
  process.stderr.write(`Common Tray cannot start:\n${config.error.map((problem) => `  - ${problem}\n`).join("")}`);
  process.exit(2);
}
const log = pino({ level: config.value.logLevel });

const refusal = await databaseProblem(config.value.databaseUrl);
if (refusal !== null) {
  process.stderr.write(`Common Tray cannot start: ${refusal}\n`);
  process.exit(1);
}

try {
  const serving = await serve(config.value, log);
  stopOnSignal(serving.stop);
  const { httpPort, mailPort, lmtpPort } = serving;
  log.info({ httpPort, mailPort, lmtpPort }, "ready");
} catch (problem) {
  process.stderr.write(`Common Tray cannot start: ${portProblem(problem)}\n`);
  process.exit(1);
}

async function databaseProblem(databaseUrl: string): Promise<string | null> {
  const { deps, close } = wire({ databaseUrl, demo: false, poolSize: 1 }, log);
  try {
    const gap = await migrationGap(deps.db);
    if (gap.unknown.length > 0) return `the database is newer than this program (${gap.unknown.join(", ")}).`;
    if (gap.missing.length > 0) return "the database is not up to date; run: npx tray migrate";
    return null;
  } catch (problem) {
    return `the database of DATABASE_URL does not answer: ${problem instanceof Error ? problem.message : String(problem)}`;
  } finally {
    await close();
  }
}
