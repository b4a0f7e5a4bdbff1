import { setTimeout as pause } from "node:timers/promises";
import { later, WEEK } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import {
  answerCommand,
  type CommandAnswer,
  claimCommand,
  forgetCommandsBefore,
  knownCommand,
  releaseCommand,
} from "../../storage/queue/index";
import type { Deps } from "./deps";

export type { CommandAnswer } from "../../storage/queue/index";

/** Why the answer to a command cannot be had: it is still carried out, or was cut off; or its id is somebody else's. */
export type NotAnswered = "open" | "foreign";

const LOOK_AGAIN_MS = 100;
const PATIENCE_MS = 8_000;
// From here on it was refused, or went wrong, and changed nothing.
const FIRST_REFUSAL = 400;

/**
 * Carries out what a browser sends under an id of its own, once: sent again within a week, it is answered as it was the
 * first time. What was refused did nothing and can be sent again; what is still carried out is waited for.
 */
export async function once(
  deps: Deps,
  grant: TrayGrant,
  id: string,
  carryOut: () => Promise<CommandAnswer>,
): Promise<Result<CommandAnswer, NotAnswered>> {
  for (let waited = 0; ; waited += LOOK_AGAIN_MS) {
    if (await claimCommand(deps.db, grant, id, deps.now())) return ok(await claimed(deps, grant, id, carryOut));
    const known = await knownCommand(deps.db, grant, id);
    if (known?.kind === "answered") return ok(known.answer);
    if (known?.kind === "foreign" || waited >= PATIENCE_MS) return err(known?.kind ?? "open");
    await pause(LOOK_AGAIN_MS);
  }
}

async function claimed(
  deps: Deps,
  grant: TrayGrant,
  id: string,
  carryOut: () => Promise<CommandAnswer>,
): Promise<CommandAnswer> {
  try {
    const answer = await carryOut();
    if (answer.status < FIRST_REFUSAL) await answerCommand(deps.db, grant, id, answer);
    else await releaseCommand(deps.db, grant, id);
    return answer;
  } catch (problem) {
    await releaseCommand(deps.db, grant, id);
    throw problem;
  }
}

/** Forgets what was sent more than a week ago. */
export function forgetCommands(deps: Deps): Promise<void> {
  return forgetCommandsBefore(deps.db, later(deps.now(), -WEEK));
}
