import { useStep } from "../frame/use-step";
import type { MembersOutcome } from "./members-outcome";

/** A form about the members of the tray. */
export function useMembersStep(onDone: (outcome: Extract<MembersOutcome, { ok: true }>) => void = () => {}) {
  return useStep<MembersOutcome>("members", onDone);
}
