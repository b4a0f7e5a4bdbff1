import type { Whom } from "../../core/docket/plan-decision";

/** An answer that is being written. */
export type Draft = {
  readonly to: string;
  readonly cc: string;
  readonly subject: string;
  readonly html: string;
  readonly after: "expect" | "settle" | "keep";
  readonly day: string;
  /** The day until which it matters; empty, or left out, for good. */
  readonly expires?: string;
  /** From whom the reply is awaited; left out means any of those it goes to. */
  readonly whom?: Whom;
  /** What one promises in it and wants to be reminded of, each with its moment, empty for none. */
  readonly promises?: readonly { readonly text: string; readonly at: string }[];
  /** "on" asks the mail systems on the way to report. */
  readonly report?: "on" | "";
  /** What whoever wrote is told when it is passed on; empty where nothing. */
  readonly informs?: string;
};

// `name` is the conversation's id, or that of a shared draft.
const keyOf = (name: string) => `common-tray-draft-${name}`;

/** Keeps a draft in this browser; a browser that keeps nothing loses it with the page. */
export function keepDraft(conversationId: string, draft: Draft): void {
  try {
    localStorage.setItem(keyOf(conversationId), JSON.stringify(draft));
  } catch {
    // Storage is full or forbidden: writing goes on without it.
  }
}

/** The draft kept for a conversation; null when there is none. */
export function keptDraft(conversationId: string): Draft | null {
  try {
    const kept: Partial<Draft> | null = JSON.parse(localStorage.getItem(keyOf(conversationId)) ?? "null");
    return typeof kept?.html === "string" && typeof kept.to === "string" ? (kept as Draft) : null;
  } catch {
    return null;
  }
}

/** Forgets the draft once it is sent. */
export function forgetDraft(conversationId: string): void {
  try {
    localStorage.removeItem(keyOf(conversationId));
  } catch {
    // Nothing was kept.
  }
}
