import type { Contact } from "../../../core/contacts/contact";
import type { FormOutcome } from "../forms/use-form-action";

/** What the server said to a step about contacts: kept, or removed (`dropped`, as she was). */
export type ContactsOutcome =
  | (Extract<FormOutcome, { ok: true }> & { readonly dropped: Contact | null })
  | Extract<FormOutcome, { ok: false }>;
