import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import type { DraftOutcome } from "../../routes/writing/drafts";
import type { DraftView } from "../../server/conversation/conversation-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useAnswered, useCommand } from "../frame/use-command";
import { TextBlocks } from "./text-blocks";

type SharedDraftProps = {
  readonly draft: DraftView;
  readonly conversationId: string;
  /** Opens it for writing; undefined where one only reads, or writes already. */
  readonly onOpen: (() => void) | undefined;
};

/** An answer that colleagues write together, as it stands between the messages until it goes or is given up. */
export function SharedDraftItem({ draft, conversationId, onOpen }: SharedDraftProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray } = useTray();
  const fetcher = useFetcher<DraftOutcome>();
  const [isReturning, setReturning] = useState(false);
  const outcome = fetcher.state === "idle" ? fetcher.data : undefined;
  useEffect(() => {
    if (outcome?.ok === true)
      notice(outcome.did === "return" ? say("conversation.draftReturned") : say("conversation.draftDiscarded"));
  }, [outcome, say]);
  const command = useCommand(`/${tray.slug}/drafts/${conversationId}`);
  useAnswered(outcome, command.isAnswered);
  const step = (fields: Record<string, string>) => {
    const body = { draft: draft.id, version: String(draft.version), ...fields };
    void fetcher.submit(body, { method: "post", action: command.at(body) });
  };
  const failed = outcome?.ok === false ? outcome : null;
  return (
    <section
      aria-label={say("conversation.draftBy", { writer: draft.writer })}
      className="my-3 ml-8 rounded-sheet border border-dashed border-act/60 bg-ours px-4.5 py-3"
    >
      <p className="flex flex-wrap items-baseline gap-x-2">
        <b className="font-semibold">{say("conversation.draftBy", { writer: draft.writer })}</b>
        <span className="text-sm text-soft">
          {draft.state === "to-check"
            ? say("conversation.forToCheckAndSend", { name: nameOf(draft.holder) })
            : say("conversation.returnedTo", { name: nameOf(draft.holder) })}
          , {draft.when}
        </span>
      </p>
      {draft.note !== "" && <p className="mt-0.5 text-sm italic">“{draft.note}”</p>}
      <TextBlocks blocks={draft.blocks} className="mt-2" />
      {onOpen !== undefined && (
        <div className="mt-3 flex flex-wrap items-center gap-2">
          <Button look={draft.isMine ? "filled" : "outline"} onClick={onOpen}>
            {draft.state === "to-check" ? say("conversation.checkAndSend") : say("conversation.continue")}
          </Button>
          {draft.state === "to-check" && draft.isMine && (
            <Button onClick={() => setReturning(!isReturning)} aria-expanded={isReturning}>
              {say("conversation.returnWithANote")}
            </Button>
          )}
          <Button look="quiet" onClick={() => step({ do: "give-up" })}>
            {say("common.discard")}
          </Button>
        </div>
      )}
      {isReturning && (
        <form
          className="mt-3 flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            step({ do: "return", note: String(new FormData(event.currentTarget).get("note")) });
          }}
        >
          <Field
            label={say("conversation.whatIsToBeChanged")}
            name="note"
            autoFocus
            className="flex-1"
            problem={failed?.problems.note}
          />
          <Button type="submit">{say("conversation.return")}</Button>
        </form>
      )}
      {failed !== null && failed.problem !== null && (
        <p role="alert" className="mt-2 text-sm text-late">
          {failed.problem}
        </p>
      )}
    </section>
  );
}

const nameOf = (holder: string) => (holder === "You" ? "you" : holder);
