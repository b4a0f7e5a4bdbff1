import type { Whom } from "../../core/deciding/decision";
import type { Mailbox } from "../../core/kernel/email-address";
import type { CategoryId, DraftAttachmentId, DraftId, MessageId, TemplateId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Filing } from "../../core/records/filing-means";
import type { SeenDraft } from "../reading/shared-drafts";

/** What happens to the conversation once the answer is on its way. */
export type AfterAnswer =
  | { readonly kind: "expect"; readonly until: Instant | null; readonly whom?: Whom }
  | { readonly kind: "keep" }
  | { readonly kind: "settle" }
  /** What was awaited is awaited still, and nothing besides. */
  | { readonly kind: "wait" };

/** A message of ours that is to go, as its form has it. */
export type Answer = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  /** Who gets it without being named in it; left out for nobody. */
  readonly bcc?: readonly Mailbox[];
  readonly subject: string;
  /** As the editor gives it; it is made harmless before it goes out, and the text part is made from it. */
  readonly html: string;
  readonly after: AfterAnswer;
  /** Whether the mail systems on the way are asked to report what becomes of it. */
  readonly asksReport?: boolean;
  /** The version of the conversation that the writer knew when she began; null where nobody can have been faster. */
  readonly seenVersion?: number | null;
  /** True sends it whoever writes or wrote meanwhile. */
  readonly anyway?: boolean;
  /** The message that is passed on with it to somebody outside; it then answers nothing. */
  readonly passesOn?: MessageId | null;
  /** What whoever wrote is told of that; null where she is told nothing. */
  readonly informs?: string | null;
  /** True passes on what the letter quotes of the message, and not the message itself with its files. */
  readonly wordsOnly?: boolean;
  /** When it stops to matter; null, or left out, for never. */
  readonly expiresAt?: Instant | null;
  /** What its writer promises in it and follows up herself, with or without a date. */
  readonly promises?: readonly { readonly text: string; readonly dueAt: Instant | null }[];
  /** On which record the conversation is filed with it; null on none. */
  readonly files?: Filing | null;
  /** The categories that the conversation gets with it; one that is none any more is left out. */
  readonly categoryIds?: readonly CategoryId[];
  /** The template that it began with; null for none. */
  readonly template?: TemplateId | null;
  /** The files that go with it. */
  readonly enclosures?: readonly DraftAttachmentId[];
  /** The shared draft that it was, which ends with it. */
  readonly draft?: SeenDraft | null;
  /** The draft of one's own that it was, which ends with it as well. */
  readonly ownDraft?: DraftId | null;
};
