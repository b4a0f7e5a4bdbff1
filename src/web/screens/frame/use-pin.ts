import { useEffect } from "react";
import { useFetcher } from "react-router";
import { notice, noticeProblem } from "../../ui/notices";
import { useTray } from "./tray-data";

/** Puts a place on a shelf, and says so. */
export function usePin(): (place: { kind: string; target: string; forAll: string }) => void {
  const { tray } = useTray();
  const { submit, state, data } = useFetcher<{ problem: string | null }>();
  useEffect(() => {
    if (state !== "idle" || data === undefined) return;
    if (data.problem === null) notice("On the shelf");
    else noticeProblem(data.problem);
  }, [state, data]);
  return (place) => void submit({ do: "pin", ...place }, { method: "post", action: `/${tray.slug}/shelf` });
}
