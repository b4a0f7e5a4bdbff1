import { memo, type ReactNode, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { sortRunTexts } from "../../../texts/en/sort-run";
import type { CorrespondenceItem, Message } from "../../server/conversation/conversation-view.server";
import type { RunView } from "../../server/list/run-view.server";
import { useSay } from "../../ui/texts/use-say";
import { Appointments } from "../conversation/appointments";
import { Correspondence } from "../conversation/correspondence";
import { LongTextParts } from "../conversation/long-text";
import { MessageAttachments } from "../conversation/message-attachments";
import { OriginalHtml } from "../conversation/original-html";
import { SwitchByKey, useShownPart } from "../conversation/shown-part";
import { UnsubscribeOffer } from "../conversation/unsubscribe";

type RunPaperProps = { readonly view: RunView; readonly isTaken: boolean };

function isMessage(item: CorrespondenceItem): item is CorrespondenceItem & Message {
  return item.type === "message";
}

/** The newest message in large type, its own words first; what was before it folded away. */
export const SortRunMessage = memo(function SortRunMessage({ view, isTaken }: RunPaperProps) {
  const say = useSay(sortRunTexts, commonTexts);
  const { row, correspondence } = view;
  const newest = correspondence.findLast(isMessage);
  const earlier = correspondence.filter((item) => item !== newest);
  return (
    <main
      aria-label={row.subject || say("common.noSubjectInside")}
      className="min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper px-5 pt-7 pb-6 lg:px-14"
    >
      {isTaken && (
        <p role="status" className="mb-4 rounded-control border border-late px-3 py-1.5 text-sm">
          <b className="font-semibold text-late">{say("sortRun.decidedMeanwhile")}</b> {view.reason}
        </p>
      )}
      <div className="flex items-baseline justify-between gap-4">
        <p>
          <b className="font-semibold">{newest?.who ?? row.who}</b>
          {newest !== undefined && <span className="pl-2.5 text-soft">{newest.kindLabel ?? newest.to}</span>}
        </p>
        <span className="whitespace-nowrap text-soft">{newest?.when ?? row.when}</span>
      </div>
      <h2 dir="auto" className="mt-3 mb-3 max-w-[62ch] font-serif ltr:text-left rtl:text-right text-[25px] leading-8">
        {row.subject || say("common.noSubject")}
      </h2>
      {newest !== undefined && <NewestBody message={newest} conversationId={row.id} />}
      {earlier.length > 0 && (
        <div className="mt-4 border-t border-hair pt-3 text-sm">
          <Fold words={say("sortRun.earlierMessagesAndNotes", { count: earlier.length })}>
            {() => <Correspondence items={earlier} conversationId={row.id} />}
          </Fold>
        </div>
      )}
    </main>
  );
});

function NewestBody({ message, conversationId }: { message: Message; conversationId: string }) {
  const say = useSay(commonTexts);
  const { asSent, switchPart } = useShownPart(message);
  const hasOwn = message.own.blocks.length > 0;
  const hasEarlier = !asSent && hasOwn && message.rest.blocks.length > 0;
  return (
    <>
      {message.hasHtml && <SwitchByKey switchPart={switchPart} />}
      <Appointments message={message} />
      {asSent ? (
        <OriginalHtml message={message} />
      ) : (
        <LongTextParts
          messageId={message.id}
          of={hasOwn ? "own" : "rest"}
          text={hasOwn ? message.own : message.rest}
          className="text-[16px] leading-[26px]"
        />
      )}
      <div className="mt-5 flex flex-wrap gap-x-4 text-sm">
        {message.hasHtml && (
          <button type="button" onClick={switchPart} className="text-act hover:underline">
            {asSent ? say("common.showAsText") : say("common.showAsItWasSent")}
          </button>
        )}
        {message.leaving !== null && <UnsubscribeOffer messageId={message.id} leaving={message.leaving} />}
        {hasEarlier && (
          <Fold words={say("common.earlierTextLines", { restLines: message.restLines })}>
            {() => (
              <LongTextParts messageId={message.id} of="rest" text={message.rest} className="mt-2 text-sm text-soft" />
            )}
          </Fold>
        )}
      </div>
      <MessageAttachments message={message} conversationId={conversationId} />
    </>
  );
}

/** Something that is drawn when one asks for it. */
function Fold({ words, children }: { words: string; children: () => ReactNode }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className={isOpen ? "basis-full" : ""}>
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="text-act hover:underline"
      >
        {words}
      </button>
      {isOpen && children()}
    </div>
  );
}
