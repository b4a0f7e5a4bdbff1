import { commonTexts } from "../../texts/en/common";
import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import { addressTexts } from "../contacts/contact";
import { type EmailAddress, readEmailAddress } from "../kernel/email-address";
import type { GroupId, MemberId, RecordId, RecordTypeId } from "../kernel/ids";
import { err, ok, type Result } from "../kernel/result";

const said = saidOf(recordsTexts, commonTexts);

/** Who may know of a record: these members, and whoever is in these groups. */
export type Access = { readonly memberIds: readonly MemberId[]; readonly groupIds: readonly GroupId[] };

/** What the register says of a record, but for its code and whether it is closed. */
export type RegisterEntry = {
  readonly typeId: RecordTypeId;
  readonly title: string;
  readonly parentId: RecordId | null;
  readonly responsibleId: MemberId | null;
  readonly note: string;
  /** The people outside whom it is about: their mail is likely to belong here. */
  readonly addresses: readonly EmailAddress[];
  /** Null where everybody may who may know of the record that it stands under. */
  readonly access: Access | null;
};

/** An entry as it was typed: addresses separated by commas, semicolons or lines. */
export type EntryDraft = Omit<RegisterEntry, "addresses"> & { readonly addresses: string };

/** What can be wrong with an entry, by its field. */
export type EntryProblems = { readonly [Field in keyof EntryDraft | "code"]?: Said };

/** As much of a record as its place in the tree takes. */
export type PlacedRecord = { readonly id: RecordId; readonly parentId: RecordId | null };

const MAX_TITLE = 200;
const MAX_NOTE = 5_000;
const MAX_ADDRESSES = 50;

/**
 * The entry that was meant, or what is wrong with it. `above` is the record that it is to stand under with all that that
 * one stands under, outermost last; `id` is that of the record, null for a new one.
 */
export function readEntry(
  draft: EntryDraft,
  id: RecordId | null,
  above: readonly PlacedRecord[],
): Result<RegisterEntry, EntryProblems> {
  const problems: { -readonly [Field in keyof EntryProblems]: EntryProblems[Field] } = {};
  const title = draft.title.trim();
  const note = draft.note.trim();
  if (title === "") problems.title = said("records.sayWhatItIsCalled");
  if (title.length > MAX_TITLE) problems.title = said("common.atMostCharacters", { most: MAX_TITLE });
  if (note.length > MAX_NOTE) problems.note = said("common.atMostCharacters", { most: MAX_NOTE });
  if (id !== null && above.some((one) => one.id === id)) problems.parentId = said("records.itWouldStandUnderItself");
  const typed = addressTexts(draft.addresses);
  const wrong = typed.find((one) => readEmailAddress(one) === null);
  if (wrong !== undefined) problems.addresses = said("common.isNotAnAddress", { address: wrong });
  const addresses = [...new Set(typed.flatMap((one) => readEmailAddress(one) ?? []))];
  if (addresses.length > MAX_ADDRESSES) problems.addresses = said("common.atMostAddresses", { most: MAX_ADDRESSES });
  if (draft.access !== null && draft.access.memberIds.length + draft.access.groupIds.length === 0)
    problems.access = said("records.nobodyWouldKnowOfIt");
  if (Object.keys(problems).length > 0) return err(problems);
  return ok({ ...draft, title, note, addresses });
}

/** A record with all that it stands under, innermost first; it ends where it would come round again. */
export function withAllAbove<R extends PlacedRecord>(id: RecordId | null, known: ReadonlyMap<RecordId, R>): R[] {
  const above: R[] = [];
  const seen = new Set<RecordId>();
  let at = id === null ? undefined : known.get(id);
  while (at !== undefined && !seen.has(at.id)) {
    above.push(at);
    seen.add(at.id);
    at = at.parentId === null ? undefined : known.get(at.parentId);
  }
  return above;
}
