import { useEffect } from "react";
import { useFetcher } from "react-router";
import { frameTexts } from "../../../texts/en/frame";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "./tray-data";

/** Puts a place on a shelf, and says so. */
export function usePin(): (place: { kind: string; target: string; forAll: string }) => void {
  const say = useSay(frameTexts);
  const { tray } = useTray();
  const { submit, state, data } = useFetcher<{ problem: string | null }>();
  useEffect(() => {
    if (state !== "idle" || data === undefined) return;
    if (data.problem === null) notice(say("frame.onTheShelf"));
    else noticeProblem(data.problem);
  }, [state, data, say]);
  return (place) => void submit({ do: "pin", ...place }, { method: "post", action: `/${tray.slug}/shelf` });
}
