import { useContext, useEffect, useRef, useState } from "react";
import { v4 } from "uuid";
import type { PresenceAnswer } from "../../routes/conversation/presence";
import { ChangeHubContext } from "../frame/live-hub";
import { useTray } from "../frame/tray-data";

// Often enough that a page which was killed is not taken for one that is there.
const SAY_AGAIN_MS = 20_000;
// Whoever goes from one to the next by key is nowhere.
const SETTLED_MS = 250;

export type Presence = PresenceAnswer["present"][number];

/** Says that this page shows a conversation, and what is done there, as long as it does; gives the colleagues who do too. */
export function usePresence(conversationId: string, doing: "looking" | "writing"): readonly Presence[] {
  const { tray } = useTray();
  const hub = useContext(ChangeHubContext);
  const [pageId] = useState(() => v4());
  const [present, setPresent] = useState<readonly Presence[]>([]);
  const said = useRef(false);
  const url = `/${tray.slug}/presence/${conversationId}`;
  useEffect(() => {
    let isHere = true;
    const hear = (answer: Response) => answer.json().then((said: PresenceAnswer) => isHere && setPresent(said.present));
    // A word that is lost is said again; without a line nobody is seen, which the screen tells already.
    const say = () => {
      said.current = true;
      void fetch(url, { method: "POST", body: formOf(pageId, doing) }).then(hear, () => {});
    };
    const first = setTimeout(say, SETTLED_MS);
    const again = setInterval(say, SAY_AGAIN_MS);
    const leave = hub.subscribeToPresence((ids) => {
      if (ids === null || ids.includes(conversationId)) void fetch(url).then(hear, () => {});
    });
    return () => {
      isHere = false;
      clearTimeout(first);
      clearInterval(again);
      leave();
    };
  }, [url, pageId, conversationId, doing, hub]);
  useEffect(() => {
    const gone = () => {
      if (said.current) navigator.sendBeacon(url, formOf(pageId, "gone"));
      said.current = false;
    };
    window.addEventListener("pagehide", gone);
    return () => {
      window.removeEventListener("pagehide", gone);
      gone();
    };
  }, [url, pageId]);
  return present;
}

function formOf(page: string, doing: string): FormData {
  const form = new FormData();
  form.set("page", page);
  form.set("doing", doing);
  return form;
}
