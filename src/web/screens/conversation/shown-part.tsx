import { useState } from "react";
import { useFetcher } from "react-router";
import { useCommands } from "../../keys/key-desk";
import type { Message } from "../../server/conversation/conversation-view.server";
import { useTray } from "../frame/tray-data";

/** Whether a message is shown as it was sent or as its text, and the switch between them, which is remembered for its sender. */
export function useShownPart(message: Message) {
  const { tray } = useTray();
  const fetcher = useFetcher();
  const [asSent, setAsSent] = useState(message.showHtmlFirst);
  const switchPart = () => {
    setAsSent(!asSent);
    const part = asSent ? "text" : "html";
    void fetcher.submit({ part }, { method: "post", action: `/${tray.slug}/messages/${message.id}/shown-part` });
  };
  return { asSent, switchPart };
}

/** Works the switch by key, for the message that the key is about. */
export function SwitchByKey({ switchPart }: { switchPart: () => void }) {
  useCommands({ "shown-part": switchPart });
  return null;
}
