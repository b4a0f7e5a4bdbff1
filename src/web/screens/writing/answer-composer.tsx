import type { ComponentProps } from "react";
import type { ConversationView, DraftView } from "../../server/conversation/conversation-view.server";
import { Composer } from "./composer";

type AnswerComposerProps = Pick<ComponentProps<typeof Composer>, "onClose" | "onSent" | "onPlanned"> & {
  readonly view: ConversationView;
  /** The shared draft that is written on; null for an answer of one's own. */
  readonly shared: DraftView | null;
  /** Whether its newest message is passed on, and not answered. */
  readonly isForwarding?: boolean;
};

/** Answers a conversation, or passes its newest message on. */
export function AnswerComposer({ view, shared, isForwarding = false, ...how }: AnswerComposerProps) {
  const { row, ownDrafts } = view;
  const what = isForwarding
    ? { ownDraft: ownDrafts.toForward, shared: null, passOn: view.passOn }
    : { ownDraft: ownDrafts.toAnswer, shared, passOn: null };
  return (
    <Composer
      key={`${row.id} ${shared?.id ?? ""} ${isForwarding}`}
      conversationId={row.id}
      start={view.answer}
      version={row.version}
      recordCodes={view.records.map(({ code }) => code)}
      messages={view.correspondence.filter((item) => item.type === "message")}
      {...what}
      {...how}
    />
  );
}
