import type { Whom } from "../deciding/decision";
import type { DraftAttachment } from "./draft-attachment";

/** A message of ours as it stands in its form, not checked yet. */
export type Draft = {
  readonly to: string;
  readonly cc: string;
  /** Who gets it without being named in it; left out for nobody. */
  readonly bcc?: string;
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
  /** "on" passes on its words only, without the message itself and its files. */
  readonly wordsOnly?: "on" | "";
  /** The files that go with it; left out for none. */
  readonly enclosures?: readonly DraftAttachment[];
  /** The record that the conversation is filed on with it; left out for none. */
  readonly files?: { readonly id: string; readonly code: string };
  /** The template that it began with; left out for none. */
  readonly template?: string;
  /** The categories that the conversation gets with it; left out for none. */
  readonly categories?: readonly string[];
  /** The message that is passed on with it; left out for an answer or a first message. */
  readonly passesOn?: string;
};

/** A draft where it is kept: its version there counts from 1 and grows with each change. */
export type KeptDraft = { readonly id: string; readonly version: number; readonly draft: Draft };

/** A draft as a device has it: on which version it was written on, and whether all of it is kept on the server. */
export type DraftOnDevice = KeptDraft & { readonly isSaved: boolean };

/** With which words writing goes on, or both where they differ and nobody but their writer can tell. */
export type GoingOn =
  | { readonly kind: "new" }
  | { readonly kind: "here"; readonly kept: DraftOnDevice }
  | { readonly kind: "there"; readonly kept: KeptDraft }
  | { readonly kind: "differ"; readonly here: DraftOnDevice; readonly there: KeptDraft };

/**
 * How a draft goes on that was written on this device (`here`) and is kept on the server (`there`), each null where there is
 * none. What was typed here and did not reach the server is never given up for what stands there: it goes on where nobody
 * wrote since, and stands beside the other where somebody did, on another device. What is saved here and not there any more
 * was sent or thrown away; what is older there than here was read before it was saved.
 */
export function goOnWith(here: DraftOnDevice | null, there: KeptDraft | null): GoingOn {
  if (here === null) return there === null ? { kind: "new" } : { kind: "there", kept: there };
  if (there === null) return here.isSaved ? { kind: "new" } : { kind: "here", kept: here };
  if (here.id !== there.id) return here.isSaved ? { kind: "there", kept: there } : { kind: "differ", here, there };
  if (here.version > there.version) return { kind: "here", kept: here };
  if (here.isSaved || isSameDraft(here.draft, there.draft)) return { kind: "there", kept: there };
  return here.version === there.version ? { kind: "here", kept: here } : { kind: "differ", here, there };
}

/** Whether two drafts say the same, whatever order their parts are kept in. */
export function isSameDraft(one: Draft, other: Draft): boolean {
  return inOrder(one) === inOrder(other);
}

// What is left out, empty or a list of nothing is the same.
function inOrder(draft: Draft): string {
  const said = Object.entries(draft).filter(
    ([, value]) => value !== "" && !(Array.isArray(value) && value.length === 0),
  );
  return JSON.stringify(said.toSorted(([a], [b]) => (a < b ? -1 : 1)));
}
