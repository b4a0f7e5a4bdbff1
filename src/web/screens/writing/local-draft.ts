import type { Whom } from "../../../core/deciding/decision";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";

/** An answer that is being written. */
export type Draft = {
  readonly to: string;
  readonly cc: string;
  readonly subject: string;
  readonly html: string;
  readonly after: "expect" | "settle" | "keep";
  /** By when a reply is expected: a day, or a moment of it (ISO 8601); empty for no date. */
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
  /** The files that go with it; left out for none. */
  readonly enclosures?: readonly DraftAttachment[];
  /** The record that the conversation is filed on with it; left out for none. */
  readonly files?: { readonly id: string; readonly code: string };
};

/** Where a draft was begun, by whom, and when it was last written on (ms since 1970). */
type Lying = {
  readonly slug: string;
  readonly conversationId: string;
  readonly memberId: string;
  readonly at: number;
};

/** A draft that lies on this device, by the name that it is kept under. */
export type UnsentDraft = { readonly name: string; readonly draft: Draft } & Omit<Lying, "slug" | "memberId">;

// `name` is the conversation's id, or that of a shared draft.
const PREFIX = "common-tray-draft-";
const keyOf = (name: string) => `${PREFIX}${name}`;

/** Keeps a draft in this browser, with where it lies if that is to be found again; a browser that keeps nothing loses it with the page. */
export function saveLocalDraft(name: string, draft: Draft, lying?: Lying): void {
  try {
    localStorage.setItem(keyOf(name), JSON.stringify(lying === undefined ? draft : { ...draft, lying }));
  } catch {
    // Storage is full or forbidden: writing goes on without it.
  }
}

/** The drafts that a member began in a tray and has not written on since before a moment, the oldest first. */
export function unsentDrafts(slug: string, memberId: string, before: number): UnsentDraft[] {
  return keptNames()
    .flatMap((name) => {
      const kept = readKept(name);
      const { lying, ...draft } = kept ?? { lying: undefined };
      const isHers = lying !== undefined && lying.slug === slug && lying.memberId === memberId && lying.at < before;
      return isHers ? [{ name, draft: draft as Draft, conversationId: lying.conversationId, at: lying.at }] : [];
    })
    .toSorted((a, b) => a.at - b.at);
}

function keptNames(): string[] {
  try {
    const keys = Array.from({ length: localStorage.length }, (_, at) => localStorage.key(at) ?? "");
    return keys.filter((key) => key.startsWith(PREFIX)).map((key) => key.slice(PREFIX.length));
  } catch {
    return [];
  }
}

function readKept(name: string): (Draft & { readonly lying?: Lying }) | null {
  try {
    const kept: Partial<Draft> | null = JSON.parse(localStorage.getItem(keyOf(name)) ?? "null");
    return typeof kept?.html === "string" && typeof kept.to === "string" ? (kept as Draft) : null;
  } catch {
    return null;
  }
}

/** The draft kept for a conversation; null when there is none. */
export function localDraft(name: string): Draft | null {
  const kept = readKept(name);
  if (kept === null) return null;
  const { lying: _, ...draft } = kept;
  return draft;
}

/** Forgets the draft once it is sent. */
export function forgetLocalDraft(name: string): void {
  try {
    localStorage.removeItem(keyOf(name));
  } catch {
    // Nothing was kept.
  }
}
