import type { MemberId } from "../../../core/kernel/ids";
import type { Reading } from "./row-view.server";
import { speak } from "./say.server";

/** What members are called for a reader, who is "you"; null is the tray, which does things by itself. */
export function memberNames(
  members: readonly { readonly id: MemberId; readonly name: string }[],
  { memberId }: Pick<Reading, "memberId">,
): (id: MemberId | null) => string {
  return (id) => {
    if (id === null) return speak("conversation.theTray");
    if (id === memberId) return speak("common.you");
    return members.find((member) => member.id === id)?.name ?? speak("common.aColleague");
  };
}
