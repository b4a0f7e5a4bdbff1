import { useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { SaysView } from "../../server/writing/says-view.server";
import { useTray } from "../frame/tray-data";

const NOTHING: SaysView = { asks: [], promises: [], encloses: null, usual: null };
// Once one pauses; what was typed meanwhile is read with the next pause.
const PAUSE_MS = 500;

/** What the text of a draft asks and promises, and when whoever gets it usually answers, some moments after it was typed. */
export function useTextSuggestions(html: string, to: string): SaysView {
  const { tray } = useTray();
  const { submit, data } = useFetcher<SaysView>();
  const [text, setText] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setText(textOf(html)), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [html]);
  // Who gets it is read with what it says; a letter of an address more is no reason to ask anew.
  const recipients = useRef(to);
  recipients.current = to;
  useEffect(() => {
    if (text === "") return;
    void submit({ text, to: recipients.current }, { method: "post", action: `/${tray.slug}/text-suggestions` });
  }, [text, submit, tray.slug]);
  return text === "" ? NOTHING : (data ?? NOTHING);
}

// What is quoted in it was written by somebody else.
function textOf(html: string): string {
  const page = new DOMParser().parseFromString(html, "text/html");
  for (const quoted of page.querySelectorAll("blockquote")) quoted.remove();
  return [...page.body.children]
    .map((part) => part.textContent?.trim() ?? "")
    .filter(Boolean)
    .join("\n\n");
}
