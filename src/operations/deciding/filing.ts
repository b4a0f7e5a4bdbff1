import type { Decision } from "../../core/deciding/decision";
import type { RecordTypeId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { beginningOf, type FieldValues, readFieldValues } from "../../core/records/filing-field";
import { saveSetting, settingsOf, type TrayGrant } from "../../storage/access/index";
import { recordTypes, registerRecords } from "../../storage/records/index";
import type { Asking } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

type Filed = Extract<Decision, { kind: "file" | "particulars" }>;

const keyOf = (typeId: RecordTypeId) => `filing/${typeId}`;

/**
 * A decision as it is to be carried out: what is filed has the particulars that its record asks for, which are then what
 * she begins with the next time. Refused, with what is asked, while something that is needed is not there or is wrong.
 */
export async function withFields(
  deps: Asking,
  grant: TrayGrant,
  decision: Decision,
): Promise<Result<Decision, Refusal>> {
  if (decision.kind !== "file" && decision.kind !== "particulars") return ok(decision);
  const [record] = await registerRecords(deps.db, grant, [decision.recordId]);
  const type = (await recordTypes(deps.db)).find(({ id }) => id === record?.typeId);
  if (record === undefined || type === undefined) return err({ kind: "no-such", what: "record" });
  const isAsked =
    decision.kind === "particulars" || decision.fields !== undefined || type.fields.some(({ required }) => required);
  if (!isAsked) return ok(decision);
  const read = readFieldValues(type.fields, decision.fields ?? {});
  if (read.ok) return ok(await remembered(deps, grant, type.id, decision, read.value));
  const last = await lastFields(deps, grant, type.id);
  const fields = type.fields.map((field) => ({
    ...field,
    value: decision.fields === undefined ? beginningOf(field, last) : (decision.fields[field.key] ?? ""),
  }));
  const problems = decision.fields === undefined ? {} : read.error;
  return err({ kind: "fields-asked", asked: { code: record.code, title: record.title, fields, problems } });
}

async function remembered(
  deps: Asking,
  { memberId }: TrayGrant,
  typeId: RecordTypeId,
  decision: Filed,
  fields: FieldValues,
): Promise<Decision> {
  await saveSetting(deps.db, memberId, keyOf(typeId), fields);
  return { ...decision, fields };
}

async function lastFields(deps: Asking, { memberId }: TrayGrant, typeId: RecordTypeId): Promise<FieldValues> {
  const kept = (await settingsOf(deps.db, memberId, [keyOf(typeId)])).get(keyOf(typeId));
  return typeof kept === "object" && kept !== null ? (kept as FieldValues) : {};
}
