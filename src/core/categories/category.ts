import type { CategoryId, TrayId } from "../kernel/ids";
import type { Ink } from "../kernel/ink";
import type { Instant } from "../kernel/instant";

/** When a category stands in the lists of a member: always, while something open has it, or only when looked for by name. */
export const LISTED = ["always", "open", "never"] as const;
export type Listed = (typeof LISTED)[number];

/** A shared label with a place in a tree. An array of them is in the order set by hand, among those with one parent. */
export type Category = {
  readonly id: CategoryId;
  /** The tray it belongs to; null when it is common to all. */
  readonly trayId: TrayId | null;
  readonly parentId: CategoryId | null;
  readonly name: string;
  /** Two or three letters. */
  readonly code: string;
  readonly ink: Ink;
  /** The letter or digit that gives it; null when it has none. */
  readonly key: string | null;
  readonly description: string;
  readonly listed: Listed;
  /** No longer offered, and still found and shown on what has it. */
  readonly retired: boolean;
};

/** What a person fills in for a category. */
export type CategoryDraft = Omit<Category, "id" | "retired">;

/** A category that is no more: since then another stands for it, or none where it was taken off. */
export type CategoryReplacement = {
  readonly at: Instant;
  readonly categoryId: CategoryId;
  readonly by: CategoryId | null;
};
