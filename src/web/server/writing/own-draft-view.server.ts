import { dayAndTime } from "../../../core/time/day-words";
import type { KeptDraft } from "../../../core/writing/draft";
import type { DraftInList, OwnDraft } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A draft of one's own as a page goes on with it. */
export function keptDraft({ id, version, content }: Pick<OwnDraft, "id" | "version" | "content">): KeptDraft {
  return { id, version, draft: content };
}

/** The same with when it was last written on, in words. */
export function ownDraftView(draft: OwnDraft, { now, zone }: Reading) {
  return { ...keptDraft(draft), when: speak(dayAndTime(draft.updatedAt, now, zone)) };
}

export type OwnDraftView = ReturnType<typeof ownDraftView>;

const SHARED = ["to-check", "returned"];

/** A draft in the list of a member: to whom, about what, how it begins, where it is written on, and whose move it is. */
export function listedDraftView(draft: DraftInList, { memberId, now, zone }: Reading) {
  const { id, conversationId, conversation, state, content, text, holderId, writtenBy, updatedAt } = draft;
  const isShared = SHARED.includes(state);
  const shared = holderId === memberId ? "to-check" : "handed-over";
  return {
    id,
    kind: isShared
      ? (shared as "to-check" | "handed-over")
      : state === "own"
        ? ("own" as const)
        : ("discarded" as const),
    /** The colleague who handed it over, or has it now. */
    otherId: !isShared ? null : holderId === memberId ? writtenBy : holderId,
    to: content.to,
    subject: content.subject || (conversation?.subject ?? ""),
    text,
    place: conversation === null ? `write?draft=${id}` : `${conversation.standing}/${conversationId}`,
    at: updatedAt,
    when: speak(dayAndTime(updatedAt, now, zone)),
  };
}

export type ListedDraftView = ReturnType<typeof listedDraftView>;
