import { commonTexts } from "../../../texts/en/common";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { type FormOutcome, useFormAction } from "./use-form-action";

/** What came of a step about things that are kept in a list: one that was removed can be brought back. */
export type KeptListOutcome =
  | Extract<FormOutcome, { ok: false }>
  | (Extract<FormOutcome, { ok: true }> & { readonly droppedId: string | null });

/**
 * The steps of a list whose things are switched on and off and removed: switching shows at once, what was removed comes
 * back from its notice. `removed` are the words of that.
 */
export function useKeptList(page: string, removed: string) {
  const say = useSay(commonTexts);
  const { post, refused, underWay, isBusy } = useFormAction<KeptListOutcome>(page, ({ droppedId }) => {
    if (droppedId === null) return;
    notice(removed, {
      action: { label: say("common.undo"), onClick: () => post({ do: "bring-back", id: droppedId }) },
    });
  });
  return {
    post,
    isBusy,
    /** Why the last step was refused, in a line; null where it was not. */
    problem: refused === null ? null : (refused.problem ?? Object.values(refused.problems)[0] ?? null),
    isOn: ({ id, isOn }: { readonly id: string; readonly isOn: boolean }) =>
      underWay?.get("do") === "switch" && underWay.get("id") === id ? underWay.get("on") === "true" : isOn,
    switches: (id: string, isOn: boolean) => post({ do: "switch", id, on: String(isOn) }),
    removes: (id: string) => post({ do: "drop", id }),
  };
}
