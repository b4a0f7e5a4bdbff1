import { type ComponentType, useEffect, useState } from "react";

type Extra = {
  readonly description?: string;
  readonly action?: { readonly label: string; readonly onClick: () => void };
  /** How long it stays, in milliseconds. */
  readonly duration?: number;
};
type List = typeof import("./notice-list");

let list: Promise<List> | null = null;
// Notices that come before there is a place for them wait for it.
let place: { readonly isThere: Promise<void>; readonly ready: () => void } | null = null;
let show: (() => void) | null = null;

// A line that is down is often what the first notice is about: it is said as soon as it can be.
const AGAIN_MS = 2_000;

function load(): Promise<List> {
  list ??= import("./notice-list").catch(async () => {
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    list = null;
    return load();
  });
  return list;
}

async function tell(kind: "done" | "problem", words: string, extra: Extra): Promise<void> {
  show?.();
  const [{ toast }] = await Promise.all([load(), place?.isThere]);
  if (kind === "done") toast(words, extra);
  else toast.error(words, extra);
}

/** Says in a short notice what was done, with the means to take it back. */
export function notice(words: string, extra: Extra = {}): void {
  void tell("done", words, extra);
}

/** Says in a short notice why something was not done. */
export function noticeProblem(words: string, extra: Extra = {}): void {
  void tell("problem", words, extra);
}

/** Where notices appear. What shows them is fetched with the first thing that somebody does, before the first is due. */
export function Notices() {
  const [Shown, setShown] = useState<ComponentType<{ onReady: () => void }> | null>(null);
  useEffect(() => {
    let ready = () => {};
    const isThere = new Promise<void>((resolve) => {
      ready = resolve;
    });
    place = { isThere, ready: () => ready() };
    show = () => void load().then((loaded) => setShown(() => loaded.default));
    const soon = () => show?.();
    document.addEventListener("pointermove", soon, { once: true });
    document.addEventListener("keydown", soon, { once: true });
    return () => {
      document.removeEventListener("pointermove", soon);
      document.removeEventListener("keydown", soon);
      place = null;
      show = null;
    };
  }, []);
  return Shown === null ? null : <Shown onReady={() => place?.ready()} />;
}
