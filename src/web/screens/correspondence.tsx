import { Paperclip, TriangleAlert } from "lucide-react";
import { useState } from "react";
import { useFetcher } from "react-router";
import type { CorrespondenceItem } from "../server/conversation-view.server";
import { Button } from "../ui/button";
import { useTray } from "./tray-data";

type Message = Extract<CorrespondenceItem, { type: "message" }>;

// The newest exchange is what one came for; what was before it opens with one click.
const SHOWN = 5;

/** The correspondence as one continuous page, oldest first, with notes between the messages. */
export function Correspondence({ items }: { items: readonly CorrespondenceItem[] }) {
  const [whole, setWhole] = useState(false);
  const folded = whole ? 0 : Math.max(0, items.length - SHOWN);
  return (
    <div className="flex scroll-mb-24 flex-col pb-6 lg:scroll-mb-0">
      {folded > 0 && (
        <button
          type="button"
          onClick={() => setWhole(true)}
          className="self-end pt-2.5 text-sm text-act hover:underline"
        >
          {folded === 1 ? "1 earlier item folded" : `${folded} earlier items folded`}
        </button>
      )}
      {items
        .slice(folded)
        .map((item) =>
          item.type === "note" ? <Note key={item.id} note={item} /> : <MessageItem key={item.id} message={item} />,
        )}
    </div>
  );
}

function Note({ note }: { note: Extract<CorrespondenceItem, { type: "note" }> }) {
  return (
    <section
      aria-label={`Note by ${note.who}`}
      className="my-2 ml-8 border-l-2 border-dotted border-faint pl-3.5 text-[13.5px] text-soft italic"
    >
      <p className="prose-own">
        <b className="font-semibold">{note.who}</b>, {note.when}: {note.text}
      </p>
    </section>
  );
}

function MessageItem({ message }: { message: Message }) {
  const look = message.ours
    ? "ml-8 border-l-[3px] border-act/30 bg-ours px-4.5 my-2"
    : "border-t border-hair first-of-type:border-t-0";
  return (
    <article aria-label={`${message.who}, ${message.when}`} className={`py-3 ${look}`}>
      <header className="flex items-baseline gap-2.5">
        <b className="font-semibold whitespace-nowrap" title={message.address}>
          {message.who}
        </b>
        {message.kindLabel !== null && (
          <span
            title={message.kindReason}
            className="rounded-control border border-rule px-1.5 text-xs whitespace-nowrap text-soft"
          >
            {message.kindLabel}
          </span>
        )}
        <span className="min-w-0 flex-1 truncate text-sm text-soft">{message.to}</span>
        <span className="text-sm whitespace-nowrap text-soft">
          {message.when}
          {message.delivery !== null && !message.delivery.failed && `, ${message.delivery.words}`}
        </span>
      </header>
      <Warnings message={message} />
      <Body message={message} />
      <Attachments message={message} />
    </article>
  );
}

function Body({ message }: { message: Message }) {
  const [asSent, setAsSent] = useState(message.showHtmlFirst);
  const own = message.ownText || (message.restLines === 0 ? "(no text)" : "");
  return (
    <>
      {asSent ? (
        <AsSent message={message} />
      ) : (
        <p className={`prose-own mt-1 max-w-[68ch] text-[15px] leading-[23px] ${message.isMachine ? "text-soft" : ""}`}>
          {own}
        </p>
      )}
      {!asSent && message.restLines > 0 && (
        <details className="mt-1.5">
          <summary className="cursor-pointer text-sm text-act">
            Earlier text, {message.restLines === 1 ? "1 line" : `${message.restLines} lines`}
          </summary>
          <p className="prose-own mt-1 max-w-[68ch] text-sm text-soft">{message.restText}</p>
        </details>
      )}
      {message.hasHtml && (
        <button type="button" onClick={() => setAsSent(!asSent)} className="mt-1.5 text-sm text-act hover:underline">
          {asSent ? "Show as text" : "Show as it was sent"}
        </button>
      )}
    </>
  );
}

// The frame may run nothing; same-origin only lets this page measure it.
function AsSent({ message }: { message: Message }) {
  const { tray } = useTray();
  const [height, setHeight] = useState(120);
  return (
    <iframe
      title={`Message of ${message.who} as it was sent`}
      src={`/${tray.slug}/messages/${message.id}/html`}
      sandbox="allow-same-origin allow-popups allow-popups-to-escape-sandbox"
      onLoad={(event) => setHeight(event.currentTarget.contentDocument?.documentElement.scrollHeight ?? height)}
      style={{ height }}
      className="mt-2 w-full"
    />
  );
}

function Warnings({ message }: { message: Message }) {
  const { tray } = useTray();
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
            Send again
          </Button>
        </fetcher.Form>
      )}
      {message.warnings.length > 0 && (
        <a href={`/${tray.slug}/messages/${message.id}/raw`} className="text-act underline underline-offset-2">
          Raw message
        </a>
      )}
    </div>
  );
}

function Attachments({ message }: { message: Message }) {
  const { tray } = useTray();
  if (message.attachments.length === 0) return null;
  return (
    <ul className="mt-2.5 flex flex-wrap gap-1.5" aria-label="Attachments">
      {message.attachments.map(({ index, fileName, size }) => (
        <li key={index}>
          <a
            href={`/${tray.slug}/messages/${message.id}/attachments/${index}`}
            className="flex h-7 items-center gap-1.5 rounded-control border border-rule px-2 text-sm hover:border-act hover:text-act"
          >
            <Paperclip size={13} aria-hidden />
            {fileName} <span className="text-soft">{size}</span>
          </a>
        </li>
      ))}
    </ul>
  );
}
