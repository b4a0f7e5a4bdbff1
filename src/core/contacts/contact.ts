import { commonTexts } from "../../texts/en/common";
import { officeTexts } from "../../texts/en/office";
import { type Said, saidOf } from "../../texts/said";
import { type EmailAddress, readEmailAddress } from "../kernel/email-address";
import type { CategoryId, ContactId } from "../kernel/ids";
import { err, ok, type Result } from "../kernel/result";

const said = saidOf(officeTexts, commonTexts);

/** Somebody outside whom the office knows: how she is called and reached, and which categories say what she is to us. */
export type Contact = {
  readonly id: ContactId;
  readonly name: string;
  readonly organisation: string;
  readonly phone: string;
  readonly note: string;
  /** The first is the one she is written to. */
  readonly addresses: readonly EmailAddress[];
  readonly categoryIds: readonly CategoryId[];
};

/** A contact as it was typed: addresses separated by commas, semicolons or lines. */
export type ContactDraft = Omit<Contact, "id" | "addresses"> & { readonly addresses: string };

/** What can be wrong with a contact, by its field. */
export type ContactProblems = { readonly [Field in keyof Omit<ContactDraft, "categoryIds">]?: Said };

const MAX_CHARACTERS = { name: 120, organisation: 120, phone: 40, note: 2_000 } as const;
const MAX_ADDRESSES = 20;

/**
 * The contact that was meant, or what is wrong with it. `others` are the tray's other contacts that have one of its
 * addresses: an address is one person's.
 */
export function readContact(
  draft: ContactDraft,
  others: readonly Pick<Contact, "name" | "addresses">[],
): Result<Omit<Contact, "id">, ContactProblems> {
  const texts = {
    name: draft.name.trim(),
    organisation: draft.organisation.trim(),
    phone: draft.phone.trim(),
    note: draft.note.trim(),
  };
  const problems: Record<string, Said> = {};
  if (texts.name === "") problems.name = said("office.sayWhatTheyAreCalled");
  for (const [field, most] of Object.entries(MAX_CHARACTERS)) {
    if (texts[field as keyof typeof texts].length > most) problems[field] = said("common.atMostCharacters", { most });
  }
  const addresses = readAddresses(draft.addresses, others);
  if (!addresses.ok) problems.addresses = addresses.error;
  if (!addresses.ok || Object.keys(problems).length > 0) return err(problems);
  return ok({ ...texts, addresses: addresses.value, categoryIds: [...new Set(draft.categoryIds)] });
}

function readAddresses(
  text: string,
  others: readonly Pick<Contact, "name" | "addresses">[],
): Result<EmailAddress[], Said> {
  const typed = addressTexts(text);
  const wrong = typed.find((one) => readEmailAddress(one) === null);
  if (wrong !== undefined) return err(said("common.isNotAnAddress", { address: wrong }));
  const addresses = [...new Set(typed.flatMap((one) => readEmailAddress(one) ?? []))];
  if (addresses.length === 0) return err(said("office.enterAtLeastOneAddress"));
  if (addresses.length > MAX_ADDRESSES) return err(said("common.atMostAddresses", { most: MAX_ADDRESSES }));
  for (const { name, addresses: theirs } of others) {
    const taken = addresses.find((one) => theirs.includes(one));
    if (taken !== undefined) return err(said("office.isSAlready", { taken, name }));
  }
  return ok(addresses);
}

/** The addresses in a text, as they were typed. */
export function addressTexts(text: string): string[] {
  return text.split(/[\s,;]+/).filter((one) => one !== "");
}
