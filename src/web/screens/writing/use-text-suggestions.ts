import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { Draft } from "../../../core/writing/draft";
import type { SaysView } from "../../server/writing/says-view.server";
import { useTray } from "../frame/tray-data";

const NOTHING: SaysView = { asks: [], promises: [], encloses: null, usual: null, warnings: [] };
// Once one pauses; what was typed meanwhile is read with the next pause.
const PAUSE_MS = 500;

type LetterRead = Pick<Draft, "to" | "cc" | "bcc" | "subject" | "html" | "files">;

/** What a draft asks and promises, and what is worth knowing of those it goes to, some moments after it was typed. */
export function useTextSuggestions(draft: LetterRead, conversationId: string | null): SaysView {
  const { tray } = useTray();
  const { submit, data } = useFetcher<SaysView>();
  const { to, cc, bcc = "", subject, html, files } = draft;
  const [asked, setAsked] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => {
      const about = { conversation: conversationId ?? "", record: files?.code ?? "" };
      setAsked(JSON.stringify({ text: textOf(html), to, cc, bcc, subject, ...about }));
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [html, to, cc, bcc, subject, files?.code, conversationId]);
  const isEmpty = html === "" && to === "";
  useEffect(() => {
    if (asked === "" || isEmpty) return;
    void submit(JSON.parse(asked), { method: "post", action: `/${tray.slug}/text-suggestions` });
  }, [asked, isEmpty, submit, tray.slug]);
  return isEmpty ? NOTHING : (data ?? NOTHING);
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
