import { type Decision, withOwnId } from "../../core/deciding/decision";
import { type BatchId, type ConversationId, type RunId, trustedId } from "../../core/kernel/ids";
import { later, MINUTE } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { grantOfMember, type TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import {
  allOfTray,
  entriesToUndo,
  factsOf,
  type HeldConversation,
  lockCategoriesForShare,
  lockConversations,
} from "../../storage/facts/index";
import {
  addBulkRun,
  type BulkRun,
  type BulkWork,
  bulkRunsOf,
  cancelBulkRun,
  lockBulkRun,
  noteBulkProgress,
} from "../../storage/lists/index";
import { decidingTexts } from "../../texts/en/deciding";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { writtenDown } from "../base/written-down";
import { type ChangePlan, carryOut, notToSettle } from "../changes/change-conversations";
import { recomputeColumns } from "../changes/recompute";
import type { Refusal } from "../refusals/refusal";
import { planRuleOver } from "../rules/plan-rule-over";
import { withMentions } from "./decide";
import { withFields } from "./filing";
import { decisionRefusal } from "./needs";
import { plannerOf } from "./round-robin";
import { undoEntries } from "./undo";

const said = saidOf(decidingTexts);

/** More conversations than this are decided about in the background. */
export const DECIDED_AT_ONCE = 200;
/** As many as a run can have. */
export const MAX_IN_RUN = 100_000;
const STEP = 500;

/** Begins a decision about many conversations; it is carried out step by step, and can be stopped and undone. */
export async function startBulkRun(
  deps: Deps,
  grant: TrayGrant,
  ids: readonly ConversationId[],
  given: Decision,
  words: string,
): Promise<Result<BulkRun["id"], Refusal>> {
  const decision = await withMentions(deps, given);
  const refusal = await decisionRefusal(deps, grant, decision);
  if (refusal !== null) return err(refusal);
  const complete = await withFields(deps, grant, decision);
  return complete.ok ? beginRun(deps, grant, ids, { kind: "decide", decision: complete.value }, words) : complete;
}

/** Keeps a run and hands its job in. */
export async function beginRun(
  deps: Deps,
  grant: TrayGrant,
  ids: readonly ConversationId[],
  work: BulkWork,
  words: string,
): Promise<Result<RunId, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  if (ids.length === 0) return err({ kind: "nothing-chosen" });
  if (ids.length > MAX_IN_RUN && work.kind !== "rule") return err({ kind: "too-many", most: MAX_IN_RUN });
  return ok(await inTransaction(deps.db, (trx) => handIn(trx, deps, grant, ids, work, words)));
}

async function handIn(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  ids: readonly ConversationId[],
  work: BulkWork,
  words: string,
): Promise<RunId> {
  const id = trustedId<RunId>(deps.newId());
  const batchId = trustedId<BatchId>(deps.newId());
  const run = { id, trayId: grant.tray.id, byMemberId: grant.memberId, batchId, work, words, createdAt: deps.now() };
  await addBulkRun(trx, run, ids);
  await deps.jobs.enqueue(trx, { kind: "run-bulk", runId: id });
  return id;
}

/** Begins to work out again everything in a tray that follows from its hours, however much it is. */
export async function startComputingAnew(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  words: string,
): Promise<void> {
  const ids = await allOfTray(trx, grant.tray);
  if (ids.length > 0) await handIn(trx, deps, grant, ids, { kind: "compute-anew" }, words);
}

/** Carries a run on to its end: each step is one transaction, so that a killed process loses none and does none twice. */
export async function runBulk(deps: Deps, id: RunId): Promise<void> {
  for (let goesOn = true; goesOn; ) {
    try {
      goesOn = await nextStep(deps, id);
    } catch (problem) {
      const words = writtenDown(said("deciding.theServerCouldNotGo"));
      await noteBulkProgress(deps.db, id, { state: "failed", problem: words, endedAt: deps.now() }, deps.now());
      throw problem;
    }
  }
}

async function nextStep(deps: Deps, id: RunId): Promise<boolean> {
  const done = await inTransaction(deps.db, async (trx) => {
    const held = await lockBulkRun(trx, id, STEP);
    if (held === null || held.run.endedAt !== null) return null;
    const { run, next } = held;
    const grant = await grantOfMember(trx, run.byMemberId, run.trayId, deps.now());
    if (grant === null || grant.role === "reader") {
      const problem = writtenDown(said("deciding.whoeverDecidedItMayNo"));
      await noteBulkProgress(trx, id, { state: "failed", problem, endedAt: deps.now() }, deps.now());
      return null;
    }
    const { changed, toTell } = await carryOutStep(trx, deps, grant, run, next);
    const position = run.position + next.length;
    const isDone = position >= run.total;
    const ended = isDone ? { state: "done" as const, endedAt: deps.now() } : { state: "running" as const };
    await noteBulkProgress(trx, id, { position, changed: run.changed + changed, ...ended }, deps.now());
    return { trayId: run.trayId, toTell, isDone };
  });
  if (done === null) return false;
  for (const conversationId of done.toTell) deps.publishChange({ trayId: done.trayId, conversationId });
  return !done.isDone;
}

type StepDone = { readonly changed: number; readonly toTell: readonly ConversationId[] };

async function carryOutStep(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  { work, batchId }: BulkRun,
  ids: readonly ConversationId[],
): Promise<StepDone> {
  if (touchesCategories(work)) await lockCategoriesForShare(trx);
  const held = await lockConversations(trx, grant.tray.id, ids);
  if (work.kind === "undo") {
    const entries = await entriesToUndo(trx, grant.tray.id, work, ids);
    const plans = await undoEntries(trx, deps, grant, held, entries, batchId);
    return { changed: plans.filter(({ kind }) => kind === "undo").length, toTell: ids };
  }
  if (work.kind === "compute-anew") {
    const otherwise = await recomputeColumns(trx, grant, held);
    // Whoever watches the run hears of each step, also of one that changed nothing.
    return { changed: otherwise.length, toTell: otherwise.length > 0 ? otherwise : ids.slice(-1) };
  }
  const isRule = work.kind === "rule";
  const planned = isRule
    ? await planRuleOver(trx, deps, grant, work.rule, held)
    : await planDecisionOver(trx, deps, grant, work.decision, held);
  // What the tray settles only once it is filed stays where it is, and is counted as not changed.
  const staying = new Set(await notToSettle(trx, grant, planned));
  const changes = planned.filter((change) => !staying.has(change));
  await carryOut(trx, deps, isRule ? null : grant.memberId, batchId, changes);
  return { changed: changes.filter(({ effects }) => effects.length > 0).length, toTell: ids };
}

function touchesCategories(work: BulkWork): boolean {
  if (work.kind === "rule") return work.rule.actions.some(({ kind }) => kind === "categorise");
  return work.kind === "undo" || (work.kind === "decide" && work.decision.kind === "categorise");
}

async function planDecisionOver(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  decision: Decision,
  held: readonly HeldConversation[],
): Promise<ChangePlan[]> {
  const facts = await factsOf(
    trx,
    held.map(({ id }) => id),
  );
  const plan = await plannerOf({ ...deps, db: trx }, grant, withOwnId(decision, deps.newId));
  return held.map((conversation) => {
    const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
    return { conversation, known, effects: plan(known) };
  });
}

/** Stops a run; what it did by then stays and can be undone. */
export async function stopBulkRun(deps: Deps, grant: TrayGrant, id: RunId): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return (await cancelBulkRun(deps.db, grant, id, deps.now())) ? ok(null) : err({ kind: "ended-already" });
}

const SHOWN_FOR = 2 * MINUTE;

/** A member's runs that are under way or ended a moment ago. */
export function runsUnderWay(deps: Deps, grant: TrayGrant): Promise<BulkRun[]> {
  return bulkRunsOf(deps.db, grant, later(deps.now(), -SHOWN_FOR));
}
