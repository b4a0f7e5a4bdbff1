import { FolderInput } from "lucide-react";
import { useState } from "react";
import { type ConversationId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { conversationTexts } from "../../../texts/en/conversation";
import { Opens } from "../../keys/key-desk";
import type { Message } from "../../server/conversation/conversation-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { RecordPicker } from "../deciding/lazy-record-picker";
import { useTray } from "../frame/tray-data";

/** A message, or one of its attachments, that is to be filed without the rest of its conversation. */
type Alone = { readonly what: string; readonly attachment: number | null };

type FileAloneProps = {
  readonly message: Message;
  readonly conversationId: string;
  readonly alone: Alone;
  readonly onClose: () => void;
};

/** Picks the record that a message, or one of its attachments, is filed on by itself. */
export function FileAlone({ message, conversationId, alone: { what, attachment }, onClose }: FileAloneProps) {
  const say = useSay(conversationTexts);
  const { decide } = useDecisions();
  return (
    <Opens>
      <RecordPicker
        target={{ rows: [] }}
        what={what}
        onDecide={(decision) => {
          if (decision.kind !== "file") return;
          onClose();
          const part = { messageId: message.id, attachment };
          decide(
            { ...decision, settle: false, part },
            targetOf(conversationId),
            say("conversation.filedTo", { called: decision.called ?? "", what }),
          );
        }}
        onClose={onClose}
      />
    </Opens>
  );
}

// Filing a part moves nothing, so its standing does not matter; nor can it overwrite what somebody else decided.
const targetOf = (id: string) => ({
  rows: [{ id: trustedId<ConversationId>(id), version: 0, standing: "our-move" as const }],
  everything: null,
});

/** The button that files one of the attachments alone. */
export function FileAttachment({
  message,
  conversationId,
  attachment: { index, fileName },
}: {
  readonly message: Message;
  readonly conversationId: string;
  readonly attachment: Message["attachments"][number];
}) {
  const say = useSay(conversationTexts);
  const [asks, setAsks] = useState(false);
  return (
    <>
      <button
        type="button"
        onClick={() => setAsks(true)}
        aria-label={say("conversation.fileAlone", { fileName })}
        title={say("conversation.fileItAloneToA")}
        className="grid h-full w-7 place-items-center border-l border-hair text-soft hover:text-act"
      >
        <FolderInput size={13} aria-hidden />
      </button>
      {asks && (
        <FileAlone
          message={message}
          conversationId={conversationId}
          alone={{ what: fileName, attachment: index }}
          onClose={() => setAsks(false)}
        />
      )}
    </>
  );
}

/** Where a message or its attachments are filed by themselves, each with the means to take it off. */
export function FiledAlone({
  message,
  conversationId,
}: {
  readonly message: Message;
  readonly conversationId: string;
}) {
  const say = useSay(conversationTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  const { decide } = useDecisions();
  if (message.filedAlone.length === 0) return null;
  return (
    <ul aria-label={say("common.filedAlone")} className="mt-2 text-sm">
      {message.filedAlone.map(({ recordId, code, attachment, what }) => (
        <li key={`${recordId} ${attachment}`} className="flex items-center gap-2 text-soft">
          <span>
            {say("conversation.aloneOn", { what })}{" "}
            <a href={`/${tray.slug}/records/${code}`} className="text-act hover:underline">
              {code}
            </a>
          </span>
          {mayDecide && (
            <button
              type="button"
              aria-label={say("conversation.removeWhatFrom", { what, code })}
              className="min-h-6 text-act hover:underline"
              onClick={() =>
                decide(
                  {
                    kind: "unfile",
                    recordId,
                    called: code,
                    part: { messageId: message.id, attachment },
                  },
                  targetOf(conversationId),
                  say("conversation.removedFrom", { code, what }),
                )
              }
            >
              {say("common.removeInside")}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
