export const TONES = ["friendly", "firm"] as const;
export type Tone = (typeof TONES)[number];
export const REMINDER_LANGUAGES = ["en", "de", "fr"] as const;
export type ReminderLanguage = (typeof REMINDER_LANGUAGES)[number];

/** How a reminder is written. */
export type ReminderStyle = { readonly tone: Tone; readonly language: ReminderLanguage };
