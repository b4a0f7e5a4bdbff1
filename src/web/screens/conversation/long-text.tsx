import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { conversationTexts } from "../../../texts/en/conversation";
import type { LongText } from "../../server/conversation/message-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { TextBlocks } from "./text-blocks";

type LongTextProps = {
  readonly messageId: string;
  readonly of: "own" | "rest";
  readonly text: LongText;
  readonly className: string;
};

/** The text of a message: its beginning, and the rest of a very long one in parts, each when it is asked for. */
export function LongTextParts({ messageId, of, text, className }: LongTextProps) {
  const say = useSay(conversationTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<LongText>();
  const [more, setMore] = useState<readonly LongText[]>([]);
  const { data, state } = fetcher;
  useEffect(() => {
    if (state === "idle" && data !== undefined) setMore((parts) => (parts.includes(data) ? parts : [...parts, data]));
  }, [state, data]);
  const { next, left } = more.at(-1) ?? text;
  return (
    <>
      {[text, ...more].map(({ blocks, left: after }) => (
        <TextBlocks key={after} blocks={blocks} className={className} />
      ))}
      {next !== null && (
        <p className="mt-2 flex items-center gap-3 text-sm text-soft">
          <button
            type="button"
            disabled={state !== "idle"}
            onClick={() => void fetcher.load(`/${tray.slug}/messages/${messageId}/text?of=${of}&from=${next}`)}
            className="text-act hover:underline"
          >
            {state === "idle" ? say("conversation.showTheRest") : say("conversation.loading")}
          </button>
          {say("conversation.moreCharacters", { left })}
        </p>
      )}
    </>
  );
}
