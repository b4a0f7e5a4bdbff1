import { useFormAction } from "../forms/use-form-action";
import type { MembersOutcome } from "./members-outcome";

/** A form about the members of the tray. */
export function useMembersStep(onDone: (outcome: Extract<MembersOutcome, { ok: true }>) => void = () => {}) {
  return useFormAction<MembersOutcome>("members", onDone);
}
