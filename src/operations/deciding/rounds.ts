import { planDecision } from "../../core/deciding/plan-decision";
import { type RoundId, type RunId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type RoundProblems, readRound, type WrittenRound } from "../../core/rounds/check-round";
import { isRoundOver, lastRound, nextRound, type Round } from "../../core/rounds/round";
import { allTrays, hoursOfTray, type Tray, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import {
  heldCounts,
  heldFor,
  type RoundHolding,
  removeRound,
  roundsByIds,
  roundsHolding,
  roundsOf,
  rulesOf,
  saveRound,
} from "../../storage/rules/index";
import { roundsTexts } from "../../texts/en/rounds";
import { saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";
import { beginRun, DECIDED_AT_ONCE, MAX_IN_RUN, runBulk } from "./bulk-run";
import { foundByTheClock } from "./wake-rested";

const said = saidOf(roundsTexts);

/** A round with what it holds now. */
export type RoundNow = Round & {
  /** When what it holds is let in; null in a tray without working days. */
  readonly next: Instant | null;
  readonly count: number;
  /** The rules that hold mail for it, by their names. */
  readonly rules: readonly string[];
};

/** The rounds of a tray by their names. */
export async function getRounds(deps: Deps, grant: TrayGrant): Promise<RoundNow[]> {
  const [rounds, counts, rules, hours] = await Promise.all([
    roundsOf(deps.db, grant.tray.id),
    heldCounts(deps.db, grant),
    rulesOf(deps.db, grant.tray.id),
    hoursOfTray(deps.db, grant.tray),
  ]);
  return rounds.map((round) => ({
    ...round,
    next: nextRound(round, deps.now(), hours),
    count: counts.get(round.id) ?? 0,
    rules: rules
      .filter(({ actions }) => actions.some((action) => action.kind === "hold" && action.roundId === round.id))
      .map(({ name }) => name),
  }));
}

/** Why a round was not kept. */
export type RoundRefusal = Refusal | { readonly kind: "round-problems"; readonly problems: RoundProblems };

/** Keeps a round, a new one where it has no id; for those who lead the tray. What is held already goes by its new times. */
export async function editRound(
  deps: Deps,
  grant: TrayGrant,
  id: RoundId | null,
  written: WrittenRound,
): Promise<Result<RoundId, RoundRefusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<RoundId, RoundRefusal>> => {
    const rounds = await roundsOf(trx, grant.tray.id);
    if (id !== null && !rounds.some((one) => one.id === id)) return err({ kind: "no-such", what: "round" });
    const others = rounds.filter((one) => one.id !== id).map(({ name }) => name);
    const read = readRound(written, others);
    if ("problems" in read) return err({ kind: "round-problems", problems: read.problems });
    const round = { ...read.round, id: id ?? trustedId<RoundId>(deps.newId()) };
    await saveRound(trx, grant.tray.id, round);
    return ok(round.id);
  });
}

/** Takes a round away, or brings it back; for those who lead the tray. What it holds is let in, and rules that hold for it stop. */
export async function dropRound(
  deps: Deps,
  grant: TrayGrant,
  id: RoundId,
  drops: boolean,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const found = await removeRound(deps.db, grant.tray.id, id, drops ? deps.now() : null);
  if (!found) return err({ kind: "no-such", what: "round" });
  if (drops) await openRounds(deps);
  return ok(null);
}

/** Lets in what a round holds, before its hour: done by the time this returns unless it is much. The run's batch takes it back. */
export async function letRoundIn(deps: Deps, grant: TrayGrant, id: RoundId): Promise<Result<RunId, Refusal>> {
  const [round] = await roundsByIds(deps.db, grant.tray.id, [id]);
  if (round === undefined) return err({ kind: "no-such", what: "round" });
  const ids = await heldFor(deps.db, grant.tray.id, id, deps.now(), MAX_IN_RUN);
  const words = writtenDown(said("rounds.letInRound", { round: round.name }));
  const run = await beginRun(deps, grant, ids, { kind: "decide", decision: { kind: "let-in" } }, words);
  if (run.ok && ids.length <= DECIDED_AT_ONCE) await runBulk(deps, run.value);
  return run;
}

const BATCH = 200;

/**
 * Lets in what rounds hold whose hour has come since, whenever that is noticed; gives how much. What came since then is
 * held on.
 */
export async function openRounds(deps: Deps): Promise<number> {
  let count = 0;
  const trays = await allTrays(deps.db);
  for (const holding of await roundsHolding(deps.db)) {
    const tray = trays.find(({ id }) => id === holding.trayId);
    const until = tray === undefined ? null : await letInUntil(deps, tray, holding);
    if (until !== null) count += await letIn(deps, holding, until);
  }
  return count;
}

/** Since when something must have been held, at the latest, to be let in now; null when its hour is still to come. */
async function letInUntil(deps: Deps, tray: Tray, { round, isRemoved, since }: RoundHolding): Promise<Instant | null> {
  const now = deps.now();
  if (isRemoved) return now;
  const hours = await hoursOfTray(deps.db, tray);
  if (!isRoundOver(round, since, now, hours)) return null;
  return nextRound(round, now, hours) === null ? now : lastRound(round, now, hours);
}

async function letIn(deps: Deps, { trayId, round }: RoundHolding, until: Instant): Promise<number> {
  let count = 0;
  for (;;) {
    const ids = await heldFor(deps.db, trayId, round.id, until, BATCH);
    const over = ids.map((id) => ({ id, trayId }));
    await foundByTheClock(deps, over, (facts) => planDecision({ kind: "let-in" }, facts));
    count += ids.length;
    if (ids.length < BATCH) return count;
  }
}
