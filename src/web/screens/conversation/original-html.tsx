import { type RefObject, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { conversationTexts } from "../../../texts/en/conversation";
import type { Message } from "../../server/conversation/conversation-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type Pictures = "held back" | "shown";

/** The height of what stands in a frame, which changes as its pictures come in and folds open. */
function useHeightOf(frame: RefObject<HTMLIFrameElement | null>) {
  const [height, setHeight] = useState(120);
  const observer = useRef<ResizeObserver>(null);
  useEffect(() => () => observer.current?.disconnect(), []);
  const measure = () => {
    const body = frame.current?.contentDocument?.body;
    if (body === undefined) return;
    observer.current?.disconnect();
    observer.current = new ResizeObserver(() => setHeight(Math.ceil(body.getBoundingClientRect().height)));
    observer.current.observe(body);
  };
  return { height, measure };
}

/** A message's HTML in a frame that may run nothing; pictures from elsewhere only once they are asked for. */
export function OriginalHtml({ message }: { message: Message }) {
  const say = useSay(conversationTexts);
  const { tray, mayDecide } = useTray();
  const fetcher = useFetcher();
  const frame = useRef<HTMLIFrameElement>(null);
  const { height, measure } = useHeightOf(frame);
  const [pictures, setPictures] = useState<Pictures>("held back");
  const address = `/${tray.slug}/messages/${message.id}`;
  return (
    <>
      {message.hasRemoteContent && pictures === "held back" && (
        <p className="mt-2 flex flex-wrap items-center gap-x-3 text-sm text-soft">
          {say("conversation.picturesFromElsewhereAreHeld")}
          <button type="button" onClick={() => setPictures("shown")} className="text-act hover:underline">
            {say("conversation.showThemOnce")}
          </button>
          {mayDecide && message.trust?.verdict === "verified" && (
            <button
              type="button"
              onClick={() => {
                void fetcher.submit(null, { method: "post", action: `${address}/remote-images` });
                setPictures("shown");
              }}
              className="text-act hover:underline"
            >
              {say("conversation.alwaysFrom", { address: message.address })}
            </button>
          )}
        </p>
      )}
      {/* same-origin only lets this page measure it */}
      <iframe
        ref={frame}
        key={pictures}
        title={say("conversation.messageOfAsItWas", { who: message.who })}
        src={`${address}/html${pictures === "shown" ? "?pictures=shown" : ""}`}
        sandbox="allow-same-origin allow-popups allow-popups-to-escape-sandbox"
        onLoad={measure}
        style={{ height }}
        className="mt-2 w-full"
      />
    </>
  );
}
