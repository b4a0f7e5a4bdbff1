import { useEffect, useState } from "react";
import type { RecipientChoice } from "../../server/writing/recipient-views.server";
import { useTray } from "../frame/tray-data";

const NONE: readonly RecipientChoice[] = [];
// Two keys that follow each other closely are one question.
const PAUSE_MS = 60;

/** Whom what is typed could mean, the best first; with nothing typed those who belong to who is there. */
export function useRecipientChoices(typed: string, taken: string, isAsked: boolean) {
  const { tray } = useTray();
  const [found, setFound] = useState({ asked: "", choices: NONE });
  const asked = `/${tray.slug}/recipients?${new URLSearchParams({ typed: typed.trim(), taken })}`;
  const isNothing = typed.trim() === "" && taken === "";
  useEffect(() => {
    if (isNothing || !isAsked) return;
    const stop = new AbortController();
    const ask = async () => {
      try {
        const response = await fetch(asked, { signal: stop.signal });
        if (response.ok) setFound({ asked, choices: (await response.json()) as RecipientChoice[] });
      } catch {
        // Whoever types goes on without.
      }
    };
    const timer = setTimeout(() => void ask(), PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [asked, isNothing, isAsked]);
  return isNothing ? { choices: NONE, isCurrent: true } : { choices: found.choices, isCurrent: found.asked === asked };
}
