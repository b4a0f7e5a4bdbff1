import type { ReminderLanguage, Tone } from "../../../core/kernel/reminder-style";
import type { waitingTexts } from "../../../texts/en/waiting";
import type { PlainKey } from "../../../texts/say";

/** What the tones of a reminder are called. */
export const TONE_NAMES: Readonly<Record<Tone, PlainKey<typeof waitingTexts>>> = {
  friendly: "waiting.friendly",
  firm: "waiting.firm",
};

/** What the languages are called that reminders are prepared in. */
export const LANGUAGE_NAMES: Readonly<Record<ReminderLanguage, PlainKey<typeof waitingTexts>>> = {
  en: "waiting.english",
  de: "waiting.german",
  fr: "waiting.french",
};
