import type { RecordId, RecordTypeId } from "../../core/kernel/ids";
import { type AskedFields, beginningOf, type FieldValues, readFieldValues } from "../../core/records/filing-field";
import { settingsOf, type TrayGrant } from "../../storage/access/index";
import { recordTypes, registerRecords } from "../../storage/records/index";
import type { Said } from "../../texts/said";
import type { Asking } from "../base/deps";

/** What a record asks for of what is filed on it, and what was given of it, read. */
export type FilingAsked = {
  readonly typeId: RecordTypeId;
  readonly isNeeded: boolean;
  /** As it is kept; null where something is missing or wrong, which `asked` says. */
  readonly values: FieldValues | null;
  readonly asked: AskedFields<Said>;
};

/** What a record that the member may know of asks for; null where there is none. Nothing given (null) begins with what she gave last. */
export async function askedFields(
  deps: Asking,
  grant: TrayGrant,
  recordId: RecordId,
  given: FieldValues | null,
): Promise<FilingAsked | null> {
  const [record] = await registerRecords(deps.db, grant, [recordId]);
  const type = (await recordTypes(deps.db)).find(({ id }) => id === record?.typeId);
  if (record === undefined || type === undefined) return null;
  const read = readFieldValues(type.fields, given ?? {});
  const last = given === null ? await lastFields(deps, grant, type.id) : {};
  const fields = type.fields.map((field) => ({
    ...field,
    value: given === null ? beginningOf(field, last) : (given[field.key] ?? ""),
  }));
  const problems = given === null || read.ok ? {} : read.error;
  const { code, title } = record;
  return {
    typeId: type.id,
    isNeeded: type.fields.some(({ required }) => required),
    values: read.ok ? read.value : null,
    asked: { code, title, fields, problems },
  };
}

/** Under which key a member's settings have what she gave last for records of a type. */
export const lastFieldsKey = (typeId: RecordTypeId) => `filing/${typeId}`;

async function lastFields(deps: Asking, { memberId }: TrayGrant, typeId: RecordTypeId): Promise<FieldValues> {
  const key = lastFieldsKey(typeId);
  const kept = (await settingsOf(deps.db, memberId, [key])).get(key);
  return typeof kept === "object" && kept !== null ? (kept as FieldValues) : {};
}
