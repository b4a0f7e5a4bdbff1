import { dayAndTime, dayHeading } from "../../../core/time/day-words";
import type { JournalPage } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** The steps of a journal in the words of a member's moment and zone. */
export function journalSteps({ steps }: JournalPage, { now, zone }: Reading) {
  return steps.map(({ batchId, at, by, rule, words, count, conversationId, subject, isUndone, mayUndo }) => ({
    batchId,
    at,
    by,
    words: speak(words),
    rule: rule === null ? null : { name: rule.name, why: rule.why },
    count,
    conversationId,
    subject,
    isUndone,
    mayUndo,
    day: speak(dayHeading(at, now, zone)),
    when: speak(dayAndTime(at, now, zone)),
  }));
}

export type JournalStepView = ReturnType<typeof journalSteps>[number];
