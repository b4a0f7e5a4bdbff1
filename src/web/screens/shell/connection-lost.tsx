import { shellTexts } from "../../../texts/en/shell";
import { useSay } from "../../ui/texts/use-say";
/** Says that the line to the server is down, and what becomes of what one does meanwhile. */
export function ConnectionLost() {
  const say = useSay(shellTexts);
  return (
    <p role="status" className="mx-4 mb-1.5 rounded-control border border-late bg-paper px-3 py-1 text-sm">
      <b className="font-semibold text-late">{say("shell.connectionLost")}</b> {say("shell.whatIsShownMayBe")}
    </p>
  );
}
