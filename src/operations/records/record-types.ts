import { type RecordTypeId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { type RecordType, type TypeProblems, typeProblems } from "../../core/records/record-type";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import { lockRecordTypes, recordTypes, saveRecordType } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** A type as it is edited; without an id it is a new one. */
export type TypeDraft = Omit<RecordType, "id"> & { readonly id: RecordTypeId | null };

/** Why a type was not kept: something is wrong with it, or with keeping it. */
export type TypeRefusal = Refusal | { readonly kind: "problems"; readonly problems: TypeProblems };

/** The types of records. */
export function getTypes(deps: Deps): Promise<RecordType[]> {
  return recordTypes(deps.db);
}

/** Keeps a type of records; for those who lead a tray. Codes that were given stay as they are. */
export async function editType(
  deps: Deps,
  grant: TrayGrant,
  draft: TypeDraft,
): Promise<Result<RecordTypeId, TypeRefusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<RecordTypeId, TypeRefusal>> => {
    await lockRecordTypes(trx);
    const types = await recordTypes(trx);
    if (draft.id !== null && !types.some(({ id }) => id === draft.id)) return err({ kind: "no-such", what: "type" });
    const type = { ...draft, name: draft.name.trim(), id: draft.id ?? trustedId<RecordTypeId>(deps.newId()) };
    const problems = typeProblems(type, types);
    if (Object.keys(problems).length > 0) return err({ kind: "problems", problems });
    await saveRecordType(trx, type);
    return ok(type.id);
  });
}
