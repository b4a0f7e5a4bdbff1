import type { MemberId } from "../../../core/kernel/ids";
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

/** A draft in the list of a member: to whom, about what, how it begins, where it is written on, and whose move it is. */
export function listedDraftView(draft: DraftInList, { memberId, now, zone }: Reading) {
  const { id, conversationId, conversation, content, text, updatedAt } = draft;
  return {
    id,
    ...whoseMove(draft, memberId),
    to: content.to,
    subject: content.subject || (conversation?.subject ?? ""),
    text,
    place: conversation === null ? `write?draft=${id}` : `${conversation.standing}/${conversationId}`,
    when: speak(dayAndTime(updatedAt, now, zone)),
  };
}

export type ListedDraftView = ReturnType<typeof listedDraftView>;

type Move = {
  readonly kind: "own" | "to-check" | "handed-over" | "discarded";
  /** The colleague who handed it over, or has it now; null where there is none. */
  readonly otherId: MemberId | null;
};

function whoseMove({ state, holderId, writtenBy }: DraftInList, memberId: MemberId): Move {
  if (state === "own") return { kind: "own", otherId: null };
  if (state === "given-up") return { kind: "discarded", otherId: null };
  return holderId === memberId ? { kind: "to-check", otherId: writtenBy } : { kind: "handed-over", otherId: holderId };
}
