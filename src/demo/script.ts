import type { PersonKey } from "./world";

/** A moment of the story: working days ago at a time of day, or minutes before now. */
export type Moment = { readonly daysAgo: number; readonly time: string } | { readonly minutesAgo: number };

export type Colleague = "ines" | "tobias" | "col" | "petra" | "mattis" | "sunniva";

/** What is done with a conversation once it is answered: a reply within so many working days, or kept, or settled. */
export type Then = { readonly replyWithin: number } | "keep" | "settle";

/** One step of a conversation's story. */
export type Step =
  | {
      readonly kind: "they";
      readonly at: Moment;
      readonly text: string;
      readonly by?: PersonKey;
      readonly headers?: Readonly<Record<string, string>>;
      readonly html?: string;
      readonly attachment?: { readonly name: string; readonly type: string; readonly content: string };
      /** The whole message as bytes would be, for the awkward ones; the placeholders are filled in. */
      readonly whole?: (ids: { messageId: string; date: string; to: string }) => string;
    }
  | { readonly kind: "bounce"; readonly at: Moment; readonly recipient: PersonKey }
  | { readonly kind: "we"; readonly at: Moment; readonly by: Colleague; readonly text: string; readonly then: Then }
  | { readonly kind: "assign"; readonly at: Moment; readonly by: Colleague; readonly to: Colleague }
  | { readonly kind: "categorise"; readonly at: Moment; readonly by: Colleague; readonly code: string }
  | { readonly kind: "file"; readonly at: Moment; readonly by: Colleague; readonly code: string }
  | { readonly kind: "settle" | "bin"; readonly at: Moment; readonly by: Colleague }
  | { readonly kind: "rest"; readonly at: Moment; readonly by: Colleague; readonly workingDays: number }
  | { readonly kind: "note"; readonly at: Moment; readonly by: Colleague; readonly text: string };

/** A conversation's story. */
export type Script = {
  readonly tray: "office" | "parts";
  readonly subject: string;
  readonly who: PersonKey;
  readonly steps: readonly Step[];
};

/** So many working days ago, at a time of day in the office. */
export const d = (daysAgo: number, time: string): Moment => ({ daysAgo, time });
/** So many minutes before now. */
export const m = (minutesAgo: number): Moment => ({ minutesAgo });

type TheyExtras = Omit<Extract<Step, { kind: "they" }>, "kind" | "at" | "text">;
export const they = (at: Moment, text: string, extras: TheyExtras = {}): Step => ({
  kind: "they",
  at,
  text,
  ...extras,
});
export const we = (at: Moment, by: Colleague, text: string, then: Then): Step => ({ kind: "we", at, by, text, then });
export const bounce = (at: Moment, recipient: PersonKey): Step => ({ kind: "bounce", at, recipient });
export const assign = (at: Moment, by: Colleague, to: Colleague): Step => ({ kind: "assign", at, by, to });
export const file = (at: Moment, by: Colleague, code: string): Step => ({ kind: "file", at, by, code });
export const settle = (at: Moment, by: Colleague): Step => ({ kind: "settle", at, by });
export const bin = (at: Moment, by: Colleague): Step => ({ kind: "bin", at, by });
export const rest = (at: Moment, by: Colleague, workingDays: number): Step => ({ kind: "rest", at, by, workingDays });
export const note = (at: Moment, by: Colleague, text: string): Step => ({ kind: "note", at, by, text });
/** Several categories at once. */
export const give = (at: Moment, by: Colleague, ...codes: string[]): Step[] =>
  codes.map((code) => ({ kind: "categorise", at, by, code }));

/** What a conversation is told with: its tray, subject, correspondent and steps, which may come in groups. */
export function tell(
  tray: Script["tray"],
  who: PersonKey,
  subject: string,
  ...steps: readonly (Step | readonly Step[])[]
): Script {
  return { tray, who, subject, steps: steps.flat() };
}
