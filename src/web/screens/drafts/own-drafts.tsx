import { useEffect, useState } from "react";
import { goOnWith } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { ConversationView } from "../../server/conversation/conversation-view.server";
import type { OwnDraftView } from "../../server/writing/own-draft-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { localDraft } from "./local-draft";
import { textOfDraft } from "./text-of-draft";
import { useDraftStep } from "./use-draft-step";
import { forgetKept, knownThere, passedOn } from "./use-kept-draft";

type OwnDraftsProps = {
  readonly view: Pick<ConversationView, "row" | "ownDrafts">;
  /** Goes on with an answer, or with forwarding; null where that is not to be had. */
  readonly onAnswer: (() => void) | null;
  readonly onForward: (() => void) | null;
};

/** What one began to write in a conversation, while one does not write on it. */
export function OwnDrafts({ view: { row, ownDrafts }, onAnswer, onForward }: OwnDraftsProps) {
  const say = useSay(conversationTexts);
  return (
    <>
      {onAnswer !== null && (
        <OwnDraft name={row.id} title={say("conversation.yourDraft")} there={ownDrafts.toAnswer} onGoOn={onAnswer} />
      )}
      {onForward !== null && (
        <OwnDraft
          name={passedOn(row.id)}
          title={say("conversation.yourDraftToForward")}
          there={ownDrafts.toForward}
          onGoOn={onForward}
        />
      )}
    </>
  );
}

type OwnDraftProps = {
  /** Under which name this device keeps it. */
  readonly name: string;
  /** As the server had it when the page was read; null where it had none. */
  readonly there: OwnDraftView | null;
  readonly title: string;
  readonly onGoOn: () => void;
};

// This device may know more of it than the server.
function OwnDraft({ name, title, there, onGoOn }: OwnDraftProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { throwAway } = useDraftStep();
  const [shown, setShown] = useState<{ readonly id: string; readonly text: string } | null>(null);
  // Only the browser knows what lies on the device.
  useEffect(() => {
    const going = goOnWith(localDraft(name), knownThere(name, there));
    const kept = going.kind === "new" ? null : going.kind === "differ" ? going.here : going.kept;
    setShown(kept === null ? null : { id: kept.id, text: textOfDraft(kept.draft) });
  }, [name, there]);
  if (shown === null) return null;
  return (
    <section
      aria-label={title}
      className="my-3 ms-8 rounded-sheet border border-dashed border-act/60 bg-ours px-4.5 py-3"
    >
      <p className="flex flex-wrap items-baseline gap-x-2">
        <b className="font-semibold">{title}</b>
        {there !== null && <span className="text-sm text-soft">{there.when}</span>}
      </p>
      <p dir="auto" className="mt-1 line-clamp-4 max-w-[68ch] whitespace-pre-line">
        {shown.text}
      </p>
      <div className="mt-2.5 flex flex-wrap items-center gap-2">
        <Button onClick={onGoOn}>{say("conversation.continue")}</Button>
        <Button
          look="quiet"
          onClick={() => {
            throwAway(shown.id);
            forgetKept(name);
            setShown(null);
          }}
        >
          {say("common.discard")}
        </Button>
      </div>
    </section>
  );
}
