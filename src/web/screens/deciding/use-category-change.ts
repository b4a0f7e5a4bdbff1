import { useCallback, useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import type { CategoryOutcome } from "../frame/category-outcome";
import { useTray } from "../frame/tray-data";
import { useDecisions } from "./decisions";

type Outcome<Ok extends boolean> = Extract<CategoryOutcome, { ok: Ok }>;

/**
 * Changes categories: what was done is told with Undo once everything shows it, then `onDone` is called; what is wrong with
 * the whole is told, what is wrong with a field is in `refused`.
 */
export function useCategoryChange(onDone?: (outcome: Outcome<true>) => void) {
  const say = useSay(commonTexts);
  const { tray } = useTray();
  const { undoCategories } = useDecisions();
  const fetcher = useFetcher<CategoryOutcome>();
  const done = useRef(onDone);
  done.current = onDone;
  const told = useRef<CategoryOutcome | undefined>(undefined);
  const outcome = fetcher.data;
  useEffect(() => {
    if (fetcher.state !== "idle" || outcome === undefined || told.current === outcome) return;
    told.current = outcome;
    if (!outcome.ok) {
      if (outcome.problem !== null) noticeProblem(outcome.problem);
      return;
    }
    const { said, stepId } = outcome;
    notice(
      said,
      stepId === null ? {} : { action: { label: say("common.undo"), onClick: () => undoCategories(stepId) } },
    );
    done.current?.(outcome);
  }, [fetcher.state, outcome, undoCategories, say]);
  const { submit } = fetcher;
  const post = useCallback(
    (fields: Readonly<Record<string, string>>) =>
      void submit(fields, { method: "post", action: `/${tray.slug}/categories` }),
    [submit, tray.slug],
  );
  return {
    post,
    Form: fetcher.Form,
    isBusy: fetcher.state !== "idle",
    refused: outcome?.ok === false ? outcome : null,
  };
}
