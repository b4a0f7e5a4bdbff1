import { UNANSWERABLE } from "../../../core/automatic-answers/may-be-answered";
import type { Instant } from "../../../core/kernel/instant";
import { dayAndTime } from "../../../core/time/day-words";
import {
  type AnswerNow,
  type AnswerPreview,
  type Deps,
  rulesAsWritten,
  type TrayGrant,
  type Unanswered,
} from "../../../operations/index.server";
import type { WrittenAnswer } from "../../screens/automatic-answers/written-answer";
import { writtenMoment } from "../base/moment-field.server";
import { speak } from "../base/say.server";

/** An automatic answer as its form begins with it. */
export async function writtenAnswer(
  deps: Deps,
  grant: TrayGrant,
  { id, name, isOn, from, until, trigger, texts, pace }: AnswerNow,
  zone: string,
): Promise<WrittenAnswer> {
  const conditions = texts.map(({ condition }) => ({ condition, exception: null, actions: [] }));
  const written = await rulesAsWritten(deps, grant, conditions);
  return {
    id,
    name,
    isOn,
    from: writtenMoment(from, zone),
    until: writtenMoment(until, zone),
    trigger,
    texts: texts.map((text, at) => ({ ...text, condition: written[at]?.condition ?? text.condition })),
    pace,
  };
}

/** An automatic answer in a list. */
export function listedAnswer(
  { id, name, isOn, from, until, trigger, texts, pace, count, gone }: AnswerNow,
  now: Instant,
  zone: string,
) {
  const isAhead = from !== null && from > now;
  return {
    id,
    name,
    isOn,
    isOver: until !== null && until <= now,
    from: isAhead ? speak(dayAndTime(from, now, zone)) : null,
    until: until === null ? null : speak(dayAndTime(until, now, zone)),
    trigger,
    pace,
    textCount: texts.length,
    begins: texts[0]?.text.split("\n", 1)[0] ?? "",
    count,
    gone,
  };
}

export type ListedAnswer = ReturnType<typeof listedAnswer>;

const REASONS: readonly Unanswered[] = [...UNANSWERABLE, "no-text", "open", "not-theirs", "lately", "too-many"];

/** What an automatic answer would have done, ready to be drawn. */
export function previewView({ of, count, people, newest, not }: AnswerPreview, now: Instant, zone: string) {
  return {
    of,
    count,
    people,
    newest: newest.map(({ conversationId, at, who, to, subject, text }) => ({
      id: conversationId,
      when: speak(dayAndTime(at, now, zone)),
      who: who === to ? who : `${who} <${to}>`,
      subject,
      text,
    })),
    not: REASONS.flatMap((reason) => {
      const found = not.get(reason) ?? 0;
      return found === 0
        ? []
        : [{ reason, words: speak("answers.notFor", { reason: reason.replaceAll("-", ""), count: found }) }];
    }),
  };
}

export type PreviewView = ReturnType<typeof previewView>;
