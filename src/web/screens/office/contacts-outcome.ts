import type { Contact } from "../../../core/contacts/contact";
import type { StepOutcome } from "../frame/use-step";

/** What the server said to a step about contacts: kept, or removed (`dropped`, as she was). */
export type ContactsOutcome =
  | (Extract<StepOutcome, { ok: true }> & { readonly dropped: Contact | null })
  | Extract<StepOutcome, { ok: false }>;
