import { readMailboxes } from "../../../core/kernel/email-address";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { placesIn } from "../../../core/templates/places";
import { scopeOf, type Template } from "../../../core/templates/template";
import { ageInWords } from "../../../core/time/age-in-words";
import { calendarDay } from "../../../core/time/calendar-day";
import { dayInWords } from "../../../core/time/day-words";
import type { LetterBegun, ListedTemplate, TemplateToChoose, UsedTemplate } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A template as its form has it; with an id of null it is a new one. */
export function writtenTemplate(template: Template) {
  const { trayId: _, memberId: __, ...written } = template;
  return { ...written, id: template.id as string | null, scope: scopeOf(template) };
}

export type WrittenTemplate = ReturnType<typeof writtenTemplate>;

/** A template in the list of all: whose it is, where it stands, what it leaves to be filled, how it was used. */
export function listedTemplate({ uses, ...template }: ListedTemplate, { now, zone }: Reading) {
  const { id, name, folder, key, description, subject, html, language } = template;
  return {
    id,
    scope: scopeOf(template),
    ...{ name, folder, key, language, description: description || subject },
    blanks: placesIn(html).blanks.length,
    uses: uses && {
      count: uses.count,
      memberIds: uses.memberIds,
      last: speak(dayInWords(uses.lastAt, now, zone)),
      answered: uses.answered,
      within: uses.answeredWithinMs === null ? null : speak(ageInWords(uses.answeredWithinMs)),
    },
  };
}

export type ListedTemplateView = ReturnType<typeof listedTemplate>;

/** A template to choose while one writes. */
export function templateChoice({ id, name, folder, key, description, isProposed }: TemplateToChoose) {
  return { id, name, folder, key, description, isProposed };
}

/** A filled template as the composer takes it, its days by the writer's zone. */
export function usedTemplateView({ expectBy, followUp, ...used }: UsedTemplate, zone: string) {
  return {
    ...used,
    day: expectBy === null ? null : calendarDay(expectBy, zone),
    promise: followUp && { text: followUp.text, at: new Date(followUp.dueAt).toISOString() },
  };
}

export type UsedTemplateView = ReturnType<typeof usedTemplateView>;

/** For which letter a template is asked for. */
export function letterBegun(asked: URLSearchParams): LetterBegun {
  const conversation = readId<ConversationId>(asked.get("conversation") ?? "");
  const { mailboxes } = readMailboxes((asked.get("to") ?? "").slice(0, 2_000));
  return {
    conversationId: conversation.ok ? conversation.value : null,
    recordCode: (asked.get("record") ?? "").slice(0, 100),
    to: mailboxes[0] ?? null,
  };
}
