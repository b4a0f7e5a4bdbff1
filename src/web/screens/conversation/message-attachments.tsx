import {
  Archive,
  Download,
  File,
  FileSpreadsheet,
  FileText,
  Image,
  type LucideIcon,
  Mail,
  ShieldCheck,
} from "lucide-react";
import { useState } from "react";
import { conversationTexts } from "../../../texts/en/conversation";
import type { Message } from "../../server/conversation/conversation-view.server";
import { Dialog } from "../../ui/dialog";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { FileAttachment } from "./file-alone";

type AttachmentView = Message["attachments"][number];

const ICONS: readonly (readonly [RegExp, LucideIcon])[] = [
  [/^image\//, Image],
  [/^message\//, Mail],
  [/zip|tar|compressed|tnef/, Archive],
  [/csv|excel|spreadsheet/, FileSpreadsheet],
  [/signature|pkcs7|pgp/, ShieldCheck],
  [/^text\/|pdf|word|document/, FileText],
];
const iconOf = (contentType: string) => ICONS.find(([pattern]) => pattern.test(contentType))?.[1] ?? File;

/** What a message carries: a look at pictures, PDF and text; every one to download, or all of them as a zip. */
export function MessageAttachments({ message, conversationId }: { message: Message; conversationId: string }) {
  const say = useSay(conversationTexts);
  const { tray, mayDecide } = useTray();
  const [shown, setShown] = useState<AttachmentView | null>(null);
  const { attachments } = message;
  if (attachments.length === 0) return null;
  const base = `/${tray.slug}/messages/${message.id}`;
  return (
    <>
      <ul className="mt-2.5 flex flex-wrap items-center gap-1.5" aria-label={say("conversation.attachments")}>
        {attachments.map((attachment) => (
          <li key={attachment.index} className="flex h-7 items-center rounded-control border border-rule text-sm">
            <Face attachment={attachment} base={base} onShow={() => setShown(attachment)} />
            <a
              href={`${base}/attachments/${attachment.index}`}
              aria-label={say("conversation.download", { fileName: attachment.fileName })}
              className="grid h-full w-7 place-items-center border-l border-hair text-soft hover:text-act"
            >
              <Download size={13} aria-hidden />
            </a>
            {mayDecide && <FileAttachment message={message} conversationId={conversationId} attachment={attachment} />}
          </li>
        ))}
        {attachments.length > 1 && (
          <li>
            <a href={`${base}/attachments.zip`} className="px-1.5 text-sm text-act hover:underline">
              {say("conversation.allAsAZip", { count: attachments.length })}
            </a>
          </li>
        )}
      </ul>
      {shown !== null && (
        <Dialog open onOpenChange={() => setShown(null)} title={shown.fileName} description={shown.size} size="page">
          <Preview attachment={shown} source={`${base}/attachments/${shown.index}?shown`} />
        </Dialog>
      )}
    </>
  );
}

function Face({ attachment, base, onShow }: { attachment: AttachmentView; base: string; onShow: () => void }) {
  const say = useSay(conversationTexts);
  const Icon = iconOf(attachment.contentType);
  const face = (
    <>
      <Icon size={14} aria-hidden className="shrink-0 text-soft" />
      <span className="max-w-[32ch] truncate">{attachment.fileName}</span>
      <span className="whitespace-nowrap text-soft">{attachment.size}</span>
    </>
  );
  const look = "flex h-full items-center gap-1.5 px-2 hover:text-act";
  if (attachment.preview === null) {
    return (
      <a href={`${base}/attachments/${attachment.index}`} className={look}>
        {face}
      </a>
    );
  }
  return (
    <button
      type="button"
      onClick={onShow}
      aria-label={say("conversation.view", { fileName: attachment.fileName })}
      className={look}
    >
      {face}
    </button>
  );
}

function Preview({ attachment, source }: { attachment: AttachmentView; source: string }) {
  if (attachment.preview === "image") {
    return (
      <div className="min-h-0 overflow-auto bg-ground p-4">
        <img src={source} alt={attachment.fileName} className="mx-auto max-w-full" />
      </div>
    );
  }
  return <iframe title={attachment.fileName} src={source} className="h-[64vh] w-full bg-white scheme-light" />;
}
