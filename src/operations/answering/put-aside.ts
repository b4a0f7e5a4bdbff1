import { assertNever } from "../../core/kernel/assert-never";
import type { MemberId, TrayId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { Job } from "../../core/ports";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { lockBulkRun, noteBulkProgress } from "../../storage/lists/index";
import { dropImportFile, setImportState, whoseImport } from "../../storage/mail/index";
import {
  deathsOf,
  forgetAttempts,
  forgetAttemptsOf,
  forgetOldAttempts,
  isPutAside,
  type JobAside,
  jobsAside,
  letJobGoOn,
  noteAttempt,
  putJobAside,
} from "../../storage/queue/index";
import { endZipExport, zipExportById } from "../../storage/records/index";
import { officeTexts } from "../../texts/en/office";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";
import { putSendingAside } from "../sending/send-message";

const said = saidOf(officeTexts);

const MOST_DEATHS = 2;
const SHOWN_ASIDE = 50;
const FORGOTTEN_AFTER = 7 * DAY;
const WORDS = writtenDown(said("office.itStoppedTheServerTwice"));

/** The name of what a job establishes: the same for the same job. */
export const jobKey = (job: Job) => JSON.stringify(job);

/** Whether a job may have taken its process down: it is to run alone then, so that no other is blamed for it. */
export async function isSuspect(deps: Deps, job: Job): Promise<boolean> {
  return (await deathsOf(deps.db, jobKey(job))) > 0;
}

/** Notes that a process begins a job. False where it is not to be done: it took its process down twice and is put aside. */
export async function beginJob(deps: Deps, job: Job, process: number): Promise<boolean> {
  const key = jobKey(job);
  if (await isPutAside(deps.db, key)) return false;
  if ((await deathsOf(deps.db, key)) >= MOST_DEATHS) {
    await putAside(deps, job);
    return false;
  }
  await noteAttempt(deps.db, key, process, deps.now());
  return true;
}

/** Notes that a job came to its end, well or not: its process lives. */
export function jobEnded(deps: Deps, job: Job): Promise<void> {
  return forgetAttempts(deps.db, jobKey(job));
}

/** A process stops in order: what it has in hand is cut off, and did not take it down. */
export function processStops(deps: Deps, process: number): Promise<void> {
  return forgetAttemptsOf(deps.db, process);
}

/** Forgets attempts whose job was settled in another way. */
export function forgetAttemptsOfLongAgo(deps: Deps): Promise<void> {
  return forgetOldAttempts(deps.db, later(deps.now(), -FORGOTTEN_AFTER));
}

type About = { readonly trayId: TrayId | null; readonly byMemberId: MemberId | null; readonly about: string };

async function putAside(deps: Deps, job: Job): Promise<void> {
  const about = await inTransaction(deps.db, async (trx) => {
    const failed = await endAsFailed(trx, deps, job);
    await putJobAside(trx, { id: deps.newId(), key: jobKey(job), kind: job.kind, ...failed }, deps.now());
    return failed;
  });
  if (about.trayId !== null) deps.publishChange({ trayId: about.trayId, conversationId: null });
}

// What it was about ends as failed, and says why to whoever asked.
async function endAsFailed(trx: Transaction, deps: Within, job: Job): Promise<About> {
  const now = deps.now();
  switch (job.kind) {
    case "send-message":
      return putSendingAside(trx, deps, job.messageId, WORDS);
    case "run-import": {
      const run = await whoseImport(trx, job.importId);
      await setImportState(trx, job.importId, ["receiving", "waiting", "running"], {
        state: "failed",
        problem: WORDS,
        endedAt: now,
      });
      await dropImportFile(trx, job.importId);
      return {
        trayId: run?.trayId ?? null,
        byMemberId: run?.byMemberId ?? null,
        about: run?.fileName ?? writtenDown(said("office.anImport")),
      };
    }
    case "run-bulk": {
      const run = (await lockBulkRun(trx, job.runId, 0))?.run;
      if (run?.endedAt === null)
        await noteBulkProgress(trx, job.runId, { state: "failed", problem: WORDS, endedAt: now }, now);
      return {
        trayId: run?.trayId ?? null,
        byMemberId: run?.byMemberId ?? null,
        about: run?.words ?? writtenDown(said("office.aRun")),
      };
    }
    case "pack-parcel": {
      const zipExport = await zipExportById(trx, job.parcelId);
      await endZipExport(trx, job.parcelId, { state: "failed", problem: WORDS }, now);
      return {
        trayId: zipExport?.trayId ?? null,
        byMemberId: zipExport?.byMemberId ?? null,
        about: zipExport?.name ?? writtenDown(said("office.anExport")),
      };
    }
    case "rules-of-sent":
      return { trayId: job.trayId, byMemberId: null, about: writtenDown(said("office.rulesOfWhatWasSent")) };
    case "read-documents":
    case "wake-rested":
    case "empty-bins":
    case "tell-by-clock":
    case "resume-work":
      return { trayId: null, byMemberId: null, about: writtenDown(CLOCKWORK[job.kind]) };
    default:
      return assertNever(job);
  }
}

const CLOCKWORK = {
  "read-documents": said("office.readingAttachmentsSoThatThey"),
  "wake-rested": said("office.bringingBackWhatRestedUntil"),
  "empty-bins": said("office.emptyingBinsAndWhatHas"),
  "tell-by-clock": said("office.remindersAndNotificationsByThe"),
  "resume-work": said("office.takingUpWhatAStopped"),
} as const;

/** What was put aside in a tray that one leads, and what concerns all trays. */
export function getJobsAside(deps: Deps, grant: TrayGrant): Promise<JobAside[]> {
  return grant.role === "lead" ? jobsAside(deps.db, grant, SHOWN_ASIDE) : Promise.resolve([]);
}

/** Lets what was put aside go on. */
export async function letGoOn(deps: Deps, grant: TrayGrant, id: string): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return (await letJobGoOn(deps.db, grant, id, deps.now())) ? ok(null) : err({ kind: "ended-already" });
}
