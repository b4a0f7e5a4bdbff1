import { dayAndTime } from "../../../core/time/day-words";
import type { JobAside } from "../../../operations/index.server";
import type { Reading } from "../base/words.server";

const KINDS: Readonly<Record<JobAside["kind"], string>> = {
  "send-message": "Sending",
  "run-import": "Import",
  "run-bulk": "Decision about many conversations",
  "pack-parcel": "Export",
  "read-documents": "Work by the clock",
  "wake-rested": "Work by the clock",
  "empty-bins": "Work by the clock",
  "tell-by-clock": "Work by the clock",
  "resume-work": "Work by the clock",
};

/** What was put aside, ready to be drawn. */
export function jobsAsideView(jobs: readonly JobAside[], { now, zone }: Reading) {
  return jobs.map(({ id, kind, about, byMemberId, at, waits }) => ({
    id,
    kind: KINDS[kind],
    about,
    byMemberId,
    when: dayAndTime(at, now, zone),
    waits,
  }));
}

export type JobAsideView = ReturnType<typeof jobsAsideView>[number];
