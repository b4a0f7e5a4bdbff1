import { BadgeCheck, MoreHorizontal, ShieldAlert, TriangleAlert } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, useFetcher, useLocation } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import { useGo } from "../../keys/key-desk";
import type { Message } from "../../server/conversation/conversation-view.server";
import { Button } from "../../ui/button";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { SendToAnother } from "../sending/send-to-another";
import { Appointments } from "./appointments";
import { FileAlone, FiledAlone } from "./file-alone";
import { LongTextParts } from "./long-text";
import { MessageAttachments } from "./message-attachments";
import { OriginalHtml } from "./original-html";
import { SwitchByKey, useShownPart } from "./shown-part";
import { UnsubscribeOffer } from "./unsubscribe";

type MessageItemProps = {
  readonly message: Message;
  readonly conversationId: string;
  readonly alone: boolean;
  readonly worksByKey: boolean;
};

/** One message: who wrote it to whom, what is to be made of that, its own words, what it carries. */
export function MessageItem({ message, conversationId, alone, worksByKey }: MessageItemProps) {
  const say = useSay(conversationTexts);
  const look = message.ours
    ? "ml-8 border-l-[3px] border-act/30 bg-ours px-4.5 my-2"
    : "border-t border-hair first-of-type:border-t-0";
  return (
    <article aria-label={`${message.who}, ${message.when}`} className={`group py-3 ${look}`}>
      <header className="flex items-center gap-2.5">
        <b className="font-semibold whitespace-nowrap" title={message.address}>
          {message.who}
        </b>
        <TrustMark message={message} />
        {message.kindLabel !== null && <Mark title={message.kindReason}>{message.kindLabel}</Mark>}
        {message.isNewParticipant && (
          <Mark title={say("conversation.theyHaveNotWrittenHere")}>{say("conversation.newInThisConversation")}</Mark>
        )}
        <span className="min-w-0 flex-1 truncate text-sm text-soft">{message.to}</span>
        <span className="text-sm whitespace-nowrap text-soft">
          {message.when}
          {message.delivery !== null && !message.delivery.failed && `, ${message.delivery.words}`}
        </span>
        <MessageMenu message={message} conversationId={conversationId} alone={alone} />
      </header>
      <Warnings message={message} />
      <Body message={message} worksByKey={worksByKey} />
      <MessageAttachments message={message} conversationId={conversationId} />
      <FiledAlone message={message} conversationId={conversationId} />
      <Outcomes message={message} />
    </article>
  );
}

function Mark({ title, children }: { title: string; children: string }) {
  return (
    <span title={title} className="rounded-control border border-rule px-1.5 text-xs whitespace-nowrap text-soft">
      {children}
    </span>
  );
}

function TrustMark({ message: { trust } }: { message: Message }) {
  if (trust === null || trust.verdict === "unverified") return null;
  const bad = trust.verdict === "imitation";
  const Icon = bad ? ShieldAlert : BadgeCheck;
  return (
    <span
      title={trust.reason}
      className={`flex items-center gap-1 text-xs whitespace-nowrap ${bad ? "font-semibold text-late" : "text-soft"}`}
    >
      <Icon size={14} aria-hidden />
      {trust.label}
    </span>
  );
}

function MessageMenu({ message, conversationId, alone }: Omit<MessageItemProps, "worksByKey">) {
  const say = useSay(conversationTexts);
  const { tray, mayDecide } = useTray();
  const fetcher = useFetcher<{ problem?: string; to?: string }>();
  const go = useGo();
  const base = `/${tray.slug}/messages/${message.id}`;
  const { problem, to } = fetcher.data ?? {};
  useEffect(() => {
    if (problem !== undefined) noticeProblem(problem);
  }, [problem]);
  useEffect(() => {
    if (to !== undefined) go(to);
  }, [to, go]);
  const { pathname } = useLocation();
  const unreadFromHere = () =>
    fetcher.submit({ list: pathname.split("/").slice(0, 3).join("/") }, { method: "post", action: `${base}/unread` });
  const splitOff = () =>
    fetcher.submit({ conversation: conversationId }, { method: "post", action: `${base}/split-off` });
  const asNew = () => fetcher.submit(null, { method: "post", action: `${base}/as-new` });
  const [files, setFiles] = useState(false);
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={say("conversation.moreAboutTheMessageOf", { who: message.who })}
          className="-my-1 grid size-6 place-items-center rounded-control text-soft opacity-60 group-hover:opacity-100 hover:bg-sunk hover:text-ink focus-visible:opacity-100"
        >
          <MoreHorizontal size={15} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={MENU} align="end">
            {mayDecide && (
              <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setFiles(true)}>
                {say("conversation.fileThisMessageAlone")}
              </DropdownMenu.Item>
            )}
            {mayDecide && !alone && (
              <DropdownMenu.Item className={MENU_ITEM} onSelect={splitOff}>
                {say("conversation.splitOffWithItsAnswers")}
              </DropdownMenu.Item>
            )}
            {mayDecide && message.ours && !message.isMachine && (
              <DropdownMenu.Item className={MENU_ITEM} onSelect={asNew}>
                {say("conversation.editAsNew")}
              </DropdownMenu.Item>
            )}
            {!message.ours && (
              <DropdownMenu.Item className={MENU_ITEM} onSelect={unreadFromHere}>
                {say("conversation.markUnreadFromHere")}
              </DropdownMenu.Item>
            )}
            {!message.ours && (
              <DropdownMenu.Item className={MENU_ITEM} asChild>
                <Link to={`${base}/rules`}>{say("conversation.whyAndWhyNot")}</Link>
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className={MENU_ITEM} asChild>
              <a href={`${base}/raw`}>{say("conversation.downloadAsEml")}</a>
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {files && (
        <FileAlone
          message={message}
          conversationId={conversationId}
          alone={{ what: say("conversation.theMessageOf", { who: message.who }), attachment: null }}
          onClose={() => setFiles(false)}
        />
      )}
    </>
  );
}

function Body({ message, worksByKey }: { message: Message; worksByKey: boolean }) {
  const say = useSay(conversationTexts, commonTexts);
  const { asSent, switchPart } = useShownPart(message);
  const nothingOwn = message.own.blocks.length === 0;
  return (
    <>
      {worksByKey && message.hasHtml && <SwitchByKey switchPart={switchPart} />}
      {message.protectionLabel !== null && <p className="mt-1 text-sm text-soft">{message.protectionLabel}</p>}
      <Appointments message={message} />
      {asSent ? (
        <OriginalHtml message={message} />
      ) : (
        <>
          {nothingOwn && message.rest.blocks.length === 0 && (
            <p className="mt-1 text-soft">{say("conversation.noText")}</p>
          )}
          <LongTextParts
            messageId={message.id}
            of="own"
            text={message.own}
            className={`mt-1 text-[15px] leading-[23px] ${message.isMachine ? "text-soft" : ""}`}
          />
          {message.rest.blocks.length > 0 && (
            // Of a message that only hands something on, that is what one wants to read.
            // Of a message that only hands something on, that is what one wants to read.
            <details className="mt-1.5" open={nothingOwn}>
              <summary className="cursor-pointer text-sm text-act">
                {say("common.earlierTextLines", { restLines: message.restLines })}
              </summary>
              <LongTextParts messageId={message.id} of="rest" text={message.rest} className="mt-1 text-sm text-soft" />
            </details>
          )}
        </>
      )}
      {(message.hasHtml || message.leaving !== null) && (
        <p className="mt-1.5 flex gap-4">
          {message.hasHtml && (
            <button type="button" onClick={switchPart} className="text-sm text-act hover:underline">
              {asSent ? say("common.showAsText") : say("common.showAsItWasSent")}
            </button>
          )}
          {message.leaving !== null && <UnsubscribeOffer messageId={message.id} leaving={message.leaving} />}
        </p>
      )}
    </>
  );
}

function Warnings({ message }: { message: Message }) {
  const say = useSay(conversationTexts);
  const { tray, mayDecide } = useTray();
  const fetcher = useFetcher();
  const failed = message.delivery?.failed === true ? message.delivery.words : null;
  if (message.warnings.length === 0 && failed === null) return null;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2 text-sm text-late">
      <TriangleAlert size={14} aria-hidden className="shrink-0" />
      <span>{failed ?? message.warnings.join("; ")}</span>
      {failed !== null && (
        <fetcher.Form method="post" action={`/${tray.slug}/messages/${message.id}/send-again`}>
          <Button type="submit" disabled={fetcher.state !== "idle"}>
            {say("conversation.sendAgain")}
          </Button>
        </fetcher.Form>
      )}
      {failed !== null && mayDecide && <SendToAnother messageId={message.id} />}
      {message.warnings.length > 0 && (
        <a href={`/${tray.slug}/messages/${message.id}/raw`} className="text-act underline underline-offset-2">
          {say("conversation.rawMessage")}
        </a>
      )}
    </div>
  );
}

function Outcomes({ message }: { message: Message }) {
  const say = useSay(conversationTexts);
  const { mayDecide } = useTray();
  if (message.outcomes.length === 0) return null;
  return (
    <>
      <ul aria-label={say("conversation.whatWasReportedOfIts")} className="mt-2 text-sm">
        {message.outcomes.map(({ words, bad }) => (
          <li key={words} className={bad ? "text-late" : "text-soft"}>
            {words}
          </li>
        ))}
      </ul>
      {mayDecide && message.outcomes.some(({ bad }) => bad) && (
        <p className="mt-2">
          <SendToAnother messageId={message.id} />
        </p>
      )}
    </>
  );
}
