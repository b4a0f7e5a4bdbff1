import { useEffect, useRef, useState } from "react";
import type { OtherMail } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import { CommandKey } from "../../keys/command-key";
import type { ConversationView, DraftView } from "../../server/conversation/conversation-view.server";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { TurnLine } from "../../ui/turn-line";
import { OwnDrafts } from "../drafts/own-drafts";
import { useTray } from "../frame/tray-data";
import { LetterToGo } from "../later-letters/letter-to-go";
import { useLetterSteps } from "../later-letters/use-letter-steps";
import type { ConversationDesk } from "../list/list-screen";
import { AnswerComposer } from "../writing/answer-composer";
import { useRecall } from "../writing/use-recall";
import { ConversationMenu } from "./conversation-menu";
import { Correspondence } from "./correspondence";
import { DocketCard } from "./docket-card";
import { PresenceLine } from "./presence-line";
import { SharedDraftItem } from "./shared-draft";
import { usePresence } from "./use-presence";

type ConversationScreenProps = {
  readonly view: ConversationView;
  readonly desk: ConversationDesk;
  /** The rest of the sender's mail, where this is junk. */
  readonly otherMail: OtherMail | null;
  readonly proposals: readonly ProposalView[];
};

/** The open conversation: correspondence in the middle, the docket at the right, the ways out below. */
export function ConversationScreen({ view, desk, otherMail, proposals }: ConversationScreenProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { mayDecide } = useTray();
  const { row } = view;
  const { present: presentRow } = desk;
  useEffect(() => presentRow(row), [presentRow, row]);
  const page = useRef<HTMLDivElement>(null);
  const { answering } = desk;
  // One comes for the newest message, and answers with it in sight.
  // biome-ignore lint/correctness/useExhaustiveDependencies: again whenever the room for it changes
  useEffect(() => {
    page.current?.lastElementChild?.scrollIntoView({ block: "end" });
  }, [answering, row.messageCount]);
  const [openDraft, setOpenDraft] = useState<DraftView | null>(null);
  const [isPassing, setPassing] = useState(false);
  // What waits for one to be checked is what answering means here.
  const shared = openDraft ?? view.drafts.find(({ isMine }) => isMine) ?? null;
  const present = usePresence(row.id, answering && mayDecide ? "writing" : "looking");
  useWritingAgain(row.id, answering && !isPassing, desk.setAnswering);
  const stopAnswering = () => {
    setOpenDraft(null);
    setPassing(false);
    desk.setAnswering(false);
  };
  const forward = () => {
    setPassing(true);
    desk.setAnswering(true);
  };
  const letterSteps = useLetterSteps();
  const takeBack = useRecall(() => desk.setAnswering(true));
  const sent = ({ messageId, holdMs }: { messageId: string; holdMs: number }) => {
    stopAnswering();
    if (holdMs === 0) notice(say("conversation.answerOnItsWay"));
    else {
      const action = { label: say("common.takeBack"), onClick: () => takeBack(messageId) };
      notice(say("conversation.itGoesInSeconds", { holdMs: Math.round(holdMs / 1_000) }), { action, duration: holdMs });
    }
  };
  return (
    <div className="grid min-h-0 min-w-0 auto-rows-max grid-cols-1 overflow-y-auto lg:auto-rows-auto lg:grid-cols-[minmax(0,1fr)_284px] xl:grid-cols-[minmax(0,1fr)_312px] lg:overflow-hidden">
      <main className="flex min-w-0 flex-col bg-paper lg:min-h-0 lg:border-r lg:border-rule">
        <div ref={page} className="px-4 pt-4 lg:min-h-0 lg:flex-1 lg:overflow-y-auto lg:px-6">
          <div className="flex items-start gap-3">
            <h1 dir="auto" className="min-w-0 flex-1 font-serif ltr:text-left rtl:text-right text-xl font-semibold">
              {row.subject === "" ? say("common.noSubject") : row.subject}
            </h1>
            {desk.place !== null && (
              <span className="hidden pt-1.5 text-sm whitespace-nowrap text-soft lg:inline">
                {say("conversation.of", { at: desk.place.at, of: desk.place.of })}
              </span>
            )}
            <ConversationMenu
              conversationId={row.id}
              ask={desk.ask}
              onPassOn={view.passOn === null ? undefined : forward}
            />
          </div>
          <div className="flex flex-wrap items-center gap-x-4 border-b border-rule pb-3 text-sm text-soft">
            <TurnLine
              width={180}
              marks={row.marks}
              turn={row.turn}
              turnSince={row.turnSince}
              standing={row.standing}
              expectedAt={row.expectedAt}
              now={view.now}
            />
            {view.turnWords}
          </div>
          <Correspondence items={view.correspondence} conversationId={row.id} worksByKey />
          {mayDecide && !answering && (
            <OwnDrafts
              view={view}
              onAnswer={shared === null ? () => desk.setAnswering(true) : null}
              onForward={view.passOn === null ? null : forward}
            />
          )}
          {view.letters.map((letter) => (
            <LetterToGo key={letter.id} letter={letter} steps={letterSteps} onChange={() => desk.setAnswering(true)} />
          ))}
          {view.drafts.map((draft) => (
            <SharedDraftItem
              key={draft.id}
              draft={draft}
              conversationId={row.id}
              onOpen={
                mayDecide && !answering
                  ? () => {
                      setOpenDraft(draft);
                      desk.setAnswering(true);
                    }
                  : undefined
              }
            />
          ))}
        </div>
        <PresenceLine present={present} />
        {answering && mayDecide ? (
          <AnswerComposer view={view} shared={shared} isForwarding={isPassing} onClose={stopAnswering} onSent={sent} />
        ) : (
          mayDecide && <DecisionActions desk={desk} standing={row.standing} hasDraft={shared !== null} />
        )}
      </main>
      <DocketCard view={view} desk={desk} otherMail={otherMail} proposals={proposals} />
    </div>
  );
}

const WRITING_IN = "common-tray-writing-in";

/** Opens an answer again where the page was reloaded while it was written. */
function useWritingAgain(conversationId: string, answering: boolean, setAnswering: (answering: boolean) => void) {
  useEffect(() => {
    if (sessionStorage.getItem(WRITING_IN) === conversationId) setAnswering(true);
  }, [conversationId, setAnswering]);
  useEffect(() => {
    if (answering) sessionStorage.setItem(WRITING_IN, conversationId);
    // A page that is reloaded does not come to this.
    return () => {
      if (answering) sessionStorage.removeItem(WRITING_IN);
    };
  }, [conversationId, answering]);
}

type WaysOutProps = { readonly desk: ConversationDesk; readonly standing: string; readonly hasDraft: boolean };

function DecisionActions({ desk, standing, hasDraft }: WaysOutProps) {
  const say = useSay(conversationTexts, commonTexts);
  const { ask, act } = desk;
  const away = standing === "bin" || standing === "junk";
  return (
    <div
      role="toolbar"
      aria-label={say("conversation.decide")}
      className="sticky bottom-0 flex flex-wrap items-center gap-1.5 border-t border-rule bg-paper px-4 py-2.5 lg:px-6"
    >
      <Button look={hasDraft ? "outline" : "filled"} aria-keyshortcuts="r" onClick={() => desk.setAnswering(true)}>
        {say("common.answer")} <CommandKey id="answer" />
      </Button>
      <Button aria-keyshortcuts="a" onClick={() => ask("assign")}>
        {say("common.assign")} <CommandKey id="assign" />
      </Button>
      <Button aria-keyshortcuts="w" onClick={() => ask("expect")}>
        {say("common.wait")} <CommandKey id="expect" />
      </Button>
      <Button aria-keyshortcuts="l" onClick={() => ask("rest")}>
        {say("common.rest")} <CommandKey id="rest" />
      </Button>
      <Button aria-keyshortcuts="f" onClick={() => ask("file")}>
        {say("common.file")} <CommandKey id="file" />
      </Button>
      {standing !== "settled" && (
        <Button aria-keyshortcuts="s" onClick={() => act({ kind: "settle" })}>
          {say("common.settle")} <CommandKey id="settle" />
        </Button>
      )}
      {standing === "held" && (
        <Button aria-keyshortcuts="I" onClick={() => act({ kind: "let-in" })}>
          {say("conversation.letIn")} <CommandKey id="let-in" />
        </Button>
      )}
      {standing === "settled" && <Button onClick={() => act({ kind: "keep" })}>{say("common.ourMove")}</Button>}
      <Button aria-keyshortcuts="b" onClick={() => act({ kind: away ? "restore" : "bin" })}>
        {away ? say("common.bringBack") : say("common.bin")} <CommandKey id="bin" />
      </Button>
    </div>
  );
}
