import { shellTexts } from "../../../texts/en/shell";
import { useSay } from "../../ui/say";
/** Why somebody sees a setting and cannot change it. */
export function LeadsOnly() {
  const say = useSay(shellTexts);
  return <span className="text-soft">{say("shell.onlyLeadsOfTheTray")}</span>;
}
