import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { useSay } from "../../ui/texts/use-say";
import { saidOf, type TrayLists } from "./foreseen";
import type { DecisionTarget, PostedDecision } from "./posted-decision";

/** What says what was decided, as it is told. */
export function useSaidOf(): (decision: PostedDecision, lists: TrayLists, target: DecisionTarget) => string {
  const say = useSay(decidingTexts, commonTexts);
  return (decision, lists, target) => saidOf(say, decision, lists, target);
}
