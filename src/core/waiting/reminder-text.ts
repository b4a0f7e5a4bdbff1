import type { Instant } from "../kernel/instant";
import type { ReminderLanguage, ReminderStyle, Tone } from "../kernel/reminder-style";

/** What a reminder is about. */
export type Reminded = {
  /** How she is called; empty where that is not known. */
  readonly name: string;
  readonly subject: string;
  readonly askedAt: Instant;
  readonly now: Instant;
  /** IANA time zone of the tray. */
  readonly zone: string;
  readonly writer: string;
};

type Words = Readonly<Record<Tone, (about: { readonly subject: string; readonly day: string }) => string>> & {
  readonly greeting: (name: string) => string;
  readonly closing: string;
};

const WORDS: Readonly<Record<ReminderLanguage, Words>> = {
  en: {
    greeting: (name) => (name === "" ? "Good day," : `Dear ${name},`),
    friendly: ({ subject, day }) =>
      `may I come back to my message of ${day} about “${subject}”? A short answer would help us to go on.`,
    firm: ({ subject, day }) =>
      `on ${day} we wrote to you about “${subject}” and have had no answer yet. Please let us have it in the next days, as we cannot go on without it.`,
    closing: "Kind regards",
  },
  de: {
    greeting: (name) => (name === "" ? "Guten Tag," : `Guten Tag ${name},`),
    friendly: ({ subject, day }) =>
      `darf ich an meine Nachricht vom ${day} zu „${subject}“ erinnern? Eine kurze Antwort würde uns weiterhelfen.`,
    firm: ({ subject, day }) =>
      `am ${day} haben wir Ihnen zu „${subject}“ geschrieben und noch keine Antwort erhalten. Bitte antworten Sie uns in den nächsten Tagen, da wir ohne sie nicht weiterkommen.`,
    closing: "Mit freundlichen Grüßen",
  },
  fr: {
    greeting: (name) => (name === "" ? "Bonjour," : `Bonjour ${name},`),
    friendly: ({ subject, day }) =>
      `puis-je revenir sur mon message du ${day} au sujet de « ${subject} » ? Une courte réponse nous aiderait à avancer.`,
    firm: ({ subject, day }) =>
      `le ${day}, nous vous avons écrit au sujet de « ${subject} » et nous n’avons pas encore reçu de réponse. Merci de nous répondre dans les prochains jours.`,
    closing: "Cordialement",
  },
};

const LOCALES: Readonly<Record<ReminderLanguage, string>> = { en: "en-GB", de: "de-DE", fr: "fr-FR" };

/** The text of a reminder, as one would write it oneself; to be looked over before it goes. */
export function reminderText(about: Reminded, { tone, language }: ReminderStyle): string {
  const words = WORDS[language];
  const subject = about.subject.replace(/^(?:(?:re|aw|tr|fwd?|wg)\s*:\s*)+/i, "");
  const day = dateIn(about, language);
  return [words.greeting(about.name), words[tone]({ subject, day }), `${words.closing}\n${about.writer}`].join("\n\n");
}

function dateIn({ askedAt, zone }: Reminded, language: ReminderLanguage): string {
  return new Intl.DateTimeFormat(LOCALES[language], { day: "numeric", month: "long", timeZone: zone }).format(askedAt);
}
