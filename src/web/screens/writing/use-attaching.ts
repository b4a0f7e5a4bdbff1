import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";
import type { AttachOutcome } from "../../routes/writing/draft-attachments";
import { useTray } from "../frame/tray-data";

/** A file on its way to the store. */
type Bringing = { readonly name: string; readonly form: FormData };

/** Brings files to the store, one after the other, and says which are on their way and what went wrong. */
export function useAttaching(onKept: (enclosure: DraftAttachment) => void) {
  const { tray } = useTray();
  const { submit, state, data } = useFetcher<AttachOutcome>();
  const [queue, setQueue] = useState<readonly Bringing[]>([]);
  const [problem, setProblem] = useState<string>();
  const underWay = useRef<Bringing | null>(null);
  const [next] = queue;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each file, and once for what became of it
  useEffect(() => {
    if (state !== "idle" || next === undefined) return;
    if (underWay.current !== next) {
      underWay.current = next;
      void submit(next.form, {
        method: "post",
        action: `/${tray.slug}/draft-attachments`,
        encType: "multipart/form-data",
      });
      return;
    }
    if (data?.ok === true) onKept(data.enclosure);
    else if (data?.ok === false) setProblem(`${next.name}: ${data.problem}`);
    setQueue((waiting) => waiting.slice(1));
  }, [state, data, next]);
  const bring = (brought: readonly Bringing[]) => {
    setProblem(undefined);
    setQueue((waiting) => [...waiting, ...brought]);
  };
  return { bring, problem, names: queue.map(({ name }) => name) };
}
