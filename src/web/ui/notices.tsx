import { type ComponentType, startTransition, useCallback, useEffect, useState } from "react";
import type { Notice, NoticeExtra, NoticeListProps } from "./notice";

// Older ones make room: what they say is in the journal.
const MOST_SHOWN = 3;
// A line that is down is often what the first notice is about: it is said as soon as it can be.
const AGAIN_MS = 2_000;

let nextKey = 0;
let place: ((notice: Notice) => void) | null = null;
// Notices that come before there is a place for them wait for it.
let waiting: readonly Notice[] = [];

function tell(kind: Notice["kind"], words: string, extra: NoticeExtra): void {
  nextKey += 1;
  const told = { ...extra, key: nextKey, kind, words };
  if (place === null) waiting = [...waiting, told];
  else place(told);
}

/** Says in a short notice what was done, with the means to take it back. */
export function notice(words: string, extra: NoticeExtra = {}): void {
  tell("done", words, extra);
}

/** Says in a short notice why something was not done. */
export function noticeProblem(words: string, extra: NoticeExtra = {}): void {
  tell("problem", words, extra);
}

let list: Promise<ComponentType<NoticeListProps>> | null = null;

function load(): Promise<ComponentType<NoticeListProps>> {
  list ??= import("./notice-list")
    .then((loaded) => loaded.NoticeList)
    .catch(async () => {
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
      list = null;
      return load();
    });
  return list;
}

/** Where notices appear. What shows them is fetched with the first thing that somebody does, before the first is due. */
export function Notices() {
  const [notices, setNotices] = useState<readonly Notice[]>([]);
  const [List, setList] = useState<ComponentType<NoticeListProps> | null>(null);
  const close = useCallback((key: number) => setNotices((all) => all.filter((one) => one.key !== key)), []);
  useEffect(() => {
    const soon = () => void load().then((loaded) => setList(() => loaded));
    place = (told) => {
      soon();
      // A key that is pressed meanwhile is answered first.
      startTransition(() => setNotices((all) => [...all, told].slice(-MOST_SHOWN)));
    };
    waiting.forEach(place);
    waiting = [];
    document.addEventListener("pointermove", soon, { once: true });
    document.addEventListener("keydown", soon, { once: true });
    return () => {
      document.removeEventListener("pointermove", soon);
      document.removeEventListener("keydown", soon);
      place = null;
    };
  }, []);
  return List === null ? null : <List notices={notices} onClose={close} />;
}
