import { shellTexts } from "../../../texts/en/shell";
import { useSay } from "../../ui/texts/use-say";
/** Why somebody sees a setting and cannot change it. */
export function LeadsOnly() {
  const say = useSay(shellTexts);
  return <span className="text-soft">{say("shell.onlyLeadsOfTheTray")}</span>;
}
