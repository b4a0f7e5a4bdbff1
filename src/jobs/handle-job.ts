import { assertNever } from "../core/kernel/assert-never";
import { type MessageId, type RunId, readId, type TrayId, type ZipExportId } from "../core/kernel/ids";
import type { Job } from "../core/ports";
import {
  type Attempt,
  applyPassingRules,
  applySendingRules,
  type Deps,
  disposeByItself,
  emptyBins,
  forgetAccess,
  forgetAnswered,
  forgetAttemptsOfLongAgo,
  forgetCommands,
  forgetDraftAttachments,
  forgetFailures,
  forgetZipExports,
  lapseExpired,
  notifyDigests,
  notifyOfOverdue,
  notifyWeeks,
  openRounds,
  proposeRules,
  readDocuments,
  resumeWork,
  runBulk,
  runImport,
  runZipExport,
  sendLaterLetters,
  sendMessage,
  sendReminders,
  wakeRested,
  wantReading,
} from "../operations/index.server";

/** Runs a job of the queue: checks what it carries, calls one operation. Throws to have it tried again. */
export async function handleJob(deps: Deps, job: Job, attempt: Attempt): Promise<void> {
  switch (job.kind) {
    case "send-message": {
      const id = readId<MessageId>(String(job.messageId));
      if (!id.ok) throw new Error(`a job asks to send message ${JSON.stringify(job.messageId)}, which is no id`);
      return sendMessage(deps, id.value, attempt);
    }
    case "rules-of-sent": {
      const [id, trayId] = [readId<MessageId>(String(job.messageId)), readId<TrayId>(String(job.trayId))];
      if (!id.ok || !trayId.ok) throw new Error("a job asks for the rules of a message without an id");
      return applySendingRules(deps, trayId.value, id.value);
    }
    case "run-import":
      if (!readId(String(job.importId)).ok) throw new Error("a job asks for an import without an id");
      return runImport(deps, job.importId);
    case "run-bulk": {
      const id = readId<RunId>(String(job.runId));
      if (!id.ok) throw new Error("a job asks for a run without an id");
      return runBulk(deps, id.value);
    }
    case "pack-parcel": {
      const id = readId<ZipExportId>(String(job.parcelId));
      if (!id.ok) throw new Error("a job asks for a parcel without an id");
      return runZipExport(deps, id.value);
    }
    case "read-documents":
      await readDocuments(deps);
      return;
    case "resume-work":
      await resumeWork(deps);
      await wantReading(deps);
      return;
    case "wake-rested":
      return eachOf(deps, [wakeRested, lapseExpired, openRounds, applyPassingRules]);
    case "tell-by-clock":
      return eachOf(deps, [sendLaterLetters, sendReminders, notifyOfOverdue, notifyDigests, notifyWeeks, proposeRules]);
    case "empty-bins":
      return eachOf(deps, [
        emptyBins,
        disposeByItself,
        forgetDraftAttachments,
        forgetZipExports,
        forgetAttemptsOfLongAgo,
        forgetCommands,
        forgetAnswered,
        forgetFailures,
        forgetAccess,
      ]);
    default:
      assertNever(job);
  }
}

// What cannot be done must not keep the rest from being done: the first problem is told behind them all.
async function eachOf(deps: Deps, works: readonly ((deps: Deps) => Promise<unknown>)[]): Promise<void> {
  const problems: unknown[] = [];
  for (const work of works) {
    try {
      await work(deps);
    } catch (problem) {
      problems.push(problem);
    }
  }
  if (problems.length > 0) throw problems[0];
}
