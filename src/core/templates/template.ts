import type { CategoryId, MemberId, TemplateId, TrayId } from "../kernel/ids";

/** What is done with a letter that began with a template, unless its writer says otherwise; left out for nothing. */
export type TemplateHabits = {
  /** A reply is expected within so many working days. */
  readonly expectDays?: number;
  /** A follow-up after so many working days, with its text. */
  readonly followUp?: { readonly days: number; readonly text: string };
  /** The conversation gets these categories. */
  readonly categoryIds?: readonly CategoryId[];
};

/** Prepared text: of a tray, of a member (`memberId`), or common to all trays (neither). */
export type Template = {
  readonly id: TemplateId;
  readonly trayId: TrayId | null;
  readonly memberId: MemberId | null;
  readonly name: string;
  /** Where it stands in the tree: names from the top, apart by slashes; empty at the top. */
  readonly folder: string;
  /** A short name that finds it at once; empty for none. */
  readonly key: string;
  /** ISO 639-1; its dates and greeting are in it. */
  readonly language: string;
  readonly description: string;
  /** Empty leaves the subject as it is. */
  readonly subject: string;
  readonly html: string;
  readonly habits: TemplateHabits;
  readonly version: number;
};

/** Whose a template is. */
export type TemplateScope = "everywhere" | "tray" | "own";

/** Whose a template is. */
export function scopeOf({ trayId, memberId }: Pick<Template, "trayId" | "memberId">): TemplateScope {
  if (memberId !== null) return "own";
  return trayId === null ? "everywhere" : "tray";
}

/** The names of the folders that a template stands in, from the top. */
export function foldersOf(folder: string): string[] {
  return folder
    .split("/")
    .map((name) => name.trim())
    .filter((name) => name !== "");
}
