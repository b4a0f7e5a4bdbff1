import {
  addressTexts,
  type Contact,
  type ContactDraft,
  type ContactProblems,
  readContact,
} from "../../core/contacts/contact";
import { readEmailAddress } from "../../core/kernel/email-address";
import { type CategoryId, type ContactId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import {
  contactOfId,
  contactsOf,
  contactsWith,
  lockContacts,
  removeContact,
  saveContact,
} from "../../storage/conversation/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import type { Deps } from "../base/deps";
import { alsoAwait } from "../deciding/awaiting";
import type { Refusal } from "../refusals/refusal";

/** Why a contact was not kept: something is wrong with it, or with keeping it. */
export type ContactRefusal = Refusal | { readonly kind: "problems"; readonly problems: ContactProblems };

/** The contacts of a tray whose name, organisation or address has the text, with a category where one is given; by name. */
export function getContacts(
  deps: Deps,
  grant: TrayGrant,
  wanted: { readonly text: string; readonly categoryId: CategoryId | null },
): Promise<Contact[]> {
  return contactsOf(deps.db, grant.tray.id, wanted);
}

/** A contact of a tray; null when it has none of this id. */
export function contactIn(deps: Deps, grant: TrayGrant, id: ContactId): Promise<Contact | null> {
  return contactOfId(deps.db, grant.tray.id, id);
}

/** Keeps a contact: a new one (`id` null), or one that is there, also one that was removed. */
export async function editContact(
  deps: Deps,
  grant: TrayGrant,
  id: ContactId | null,
  draft: ContactDraft,
): Promise<Result<Contact, ContactRefusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const trayId = grant.tray.id;
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<Contact, ContactRefusal>> => {
    await lockCategoriesForShare(trx);
    await lockContacts(trx, trayId);
    if (id !== null && (await contactOfId(trx, trayId, id)) === null) return err({ kind: "no-such", what: "contact" });
    const typed = addressTexts(draft.addresses).flatMap((text) => readEmailAddress(text) ?? []);
    const others = (await contactsWith(trx, trayId, typed)).filter((other) => other.id !== id);
    const read = readContact(draft, others);
    if (!read.ok) return err({ kind: "problems", problems: read.error });
    const known = new Set((await categoriesOf(trx, trayId)).map((category) => category.id));
    if (read.value.categoryIds.some((one) => !known.has(one))) return err({ kind: "no-such", what: "category" });
    const contact = { ...read.value, id: id ?? trustedId<ContactId>(deps.newId()) };
    await saveContact(trx, trayId, contact);
    await alsoAwait(trx, deps, trayId, contact.addresses);
    return ok(contact);
  });
}

/** Removes a contact; what she wrote stays. Gives what she was, so that she can be kept again. */
export async function dropContact(deps: Deps, grant: TrayGrant, id: ContactId): Promise<Result<Contact, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<Contact, Refusal>> => {
    const contact = await contactOfId(trx, grant.tray.id, id);
    const removed = contact !== null && (await removeContact(trx, grant.tray.id, id, deps.now()));
    return removed ? ok(contact) : err({ kind: "no-such", what: "contact" });
  });
}
