import type { Decision } from "../../core/deciding/decision";
import { err, ok, type Result } from "../../core/kernel/result";
import { saveSetting, type TrayGrant } from "../../storage/access/index";
import type { Asking } from "../base/deps";
import { askedFields, lastFieldsKey } from "../changes/asked-fields";
import type { Refusal } from "../refusals/refusal";

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
  const found = await askedFields(deps, grant, decision.recordId, decision.fields ?? null);
  if (found === null) return err({ kind: "no-such", what: "record" });
  const { typeId, isNeeded, values, asked } = found;
  if (decision.kind === "file" && decision.fields === undefined && !isNeeded) return ok(decision);
  if (values === null) return err({ kind: "fields-asked", asked });
  await saveSetting(deps.db, grant.memberId, lastFieldsKey(typeId), values);
  return ok({ ...decision, fields: values });
}
