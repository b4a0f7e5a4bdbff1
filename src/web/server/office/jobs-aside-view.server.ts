import { dayAndTime } from "../../../core/time/day-words";
import type { JobAside } from "../../../operations/index.server";
import type { English } from "../../../texts/en/index";
import type { PlainKey } from "../../../texts/say";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

const KINDS: Readonly<Record<JobAside["kind"], PlainKey<English>>> = {
  "send-message": "office.sending",
  "rules-of-sent": "office.rulesOfWhatWasSent",
  "run-import": "office.import",
  "run-bulk": "office.decisionAboutManyConversations",
  "pack-parcel": "common.export",
  "read-documents": "office.workByTheClock",
  "wake-rested": "office.workByTheClock",
  "empty-bins": "office.workByTheClock",
  "tell-by-clock": "office.workByTheClock",
  "resume-work": "office.workByTheClock",
};

/** What was put aside, ready to be drawn. */
export function jobsAsideView(jobs: readonly JobAside[], { now, zone }: Reading) {
  return jobs.map(({ id, kind, about, byMemberId, at, waits }) => ({
    id,
    kind: speak(KINDS[kind]),
    about,
    byMemberId,
    when: speak(dayAndTime(at, now, zone)),
    waits,
  }));
}

export type JobAsideView = ReturnType<typeof jobsAsideView>[number];
