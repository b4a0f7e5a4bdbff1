/** What can fill a blank by itself, where it is known when the template is used. */
export const FILLINGS = [
  "greeting",
  "their-name",
  "their-organisation",
  "their-day",
  "record-code",
  "record-title",
  "owner",
  "my-name",
  "tray-name",
  "today",
] as const;
export type Filling = (typeof FILLINGS)[number];

/** How what is asked for is given. */
export const ASKED = ["text", "number", "date", "choice"] as const;
export type Asked = (typeof ASKED)[number];

/** Whether somebody has to fill a blank: nothing else knows what belongs there. */
export const isAsked = (blank: Blank): blank is Extract<Blank, { readonly kind: Asked }> =>
  (ASKED as readonly string[]).includes(blank.kind);

/** In which days a date ahead is counted. */
export const COUNTED_DAYS = ["in-days", "in-working-days"] as const;
export type CountedDays = (typeof COUNTED_DAYS)[number];

/** The most days ahead that a date is computed. */
export const MOST_DAYS = 365;

/**
 * A place in a template that is filled before it goes: by itself, by a date so many days ahead, or by whoever writes.
 * `label` says in words what belongs there.
 */
export type Blank =
  | { readonly kind: Filling; readonly label: string }
  | { readonly kind: CountedDays; readonly label: string; readonly days: number }
  | { readonly kind: Exclude<Asked, "choice">; readonly label: string }
  | { readonly kind: "choice"; readonly label: string; readonly choices: readonly string[] };

/** How a blank stands in the HTML of a text: `<span data-blank="…">label</span>`, with its days or its choices. */
export const BLANK_ATTRIBUTE = "data-blank";
export const DAYS_ATTRIBUTE = "data-days";
/** The choices, apart by vertical bars. */
export const CHOICES_ATTRIBUTE = "data-choices";
/** How a passage that is left out unless somebody takes it in stands there: `<div data-passage="question">…</div>`. */
export const PASSAGE_ATTRIBUTE = "data-passage";

/** The blank that the attributes of an element stand for; one that cannot be read as it was meant asks for a text. */
export function blankOf(attributes: Readonly<Record<string, string>>, label: string): Blank {
  const kind = attributes[BLANK_ATTRIBUTE] ?? "";
  if (isOneOf(FILLINGS, kind)) return { kind, label };
  if (isOneOf(COUNTED_DAYS, kind)) {
    const days = Number(attributes[DAYS_ATTRIBUTE]);
    const isCount = Number.isInteger(days) && days >= 1 && days <= MOST_DAYS;
    return isCount ? { kind, label, days } : { kind: "date", label };
  }
  const choices = choicesOf(attributes[CHOICES_ATTRIBUTE] ?? "");
  if (kind === "choice" && choices.length > 0) return { kind, label, choices };
  return { kind: kind === "number" || kind === "date" ? kind : "text", label };
}

/** What can be chosen, as it is written with vertical bars between. */
function choicesOf(written: string): string[] {
  const choices = written.split("|").map((choice) => choice.trim());
  return [...new Set(choices.filter((choice) => choice !== ""))];
}

function isOneOf<T extends string>(all: readonly T[], one: string): one is T {
  return (all as readonly string[]).includes(one);
}
