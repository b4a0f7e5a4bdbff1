import { aConversation, did, type Happening, INES, TOBIAS, theyWrote } from "@tests/support/a-conversation";
import { describe, expect, it } from "vitest";
import { type CategoryId, type ConversationId, trustedId } from "../kernel/ids";
import type { Effect } from "./entry";
import { planRedo } from "./plan-redo";

const TUNING = trustedId<CategoryId>("tuning");
const assigned: Effect = { kind: "assigned", ownerId: INES };
const settled: Effect = { kind: "settled" };
const tuned: Effect = { kind: "categorised", categoryId: TUNING };
const joined: Effect = {
  kind: "joined",
  conversationId: trustedId<ConversationId>("other"),
  subject: "x",
  messages: [],
  entries: [],
};

/** What doing undone effects again would do; `since` happened after they were undone. */
function planned(undone: readonly Effect[], ...since: Happening[]): string[] {
  const { entries } = aConversation(theyWrote(), ...undone.map((effect) => did(effect)), ...since);
  const undoings = entries.slice(0, undone.length);
  return planRedo(undoings, entries.slice(undone.length)).map(({ kind, entry }) => `${kind} ${entry.effect.kind}`);
}

describe("doing again", () => {
  it.each<[string, readonly Effect[], Happening[], string[]]>([
    ["does what was undone", [settled], [], ["redo settled"]],
    // The newest effect is undone first, so the undoing that came last is of what was done first.
    ["does first what was done first", [settled, tuned], [], ["redo categorised", "redo settled"]],
    ["leaves what somebody decided since", [assigned], [did(assigned, TOBIAS)], ["overtaken assigned"]],
    ["is not overtaken by something else", [assigned], [did(settled, TOBIAS)], ["redo assigned"]],
    ["does not move messages again", [joined], [], ["not-again joined"]],
    [
      "does a note again among others",
      [{ kind: "noted", text: "a" }],
      [did({ kind: "noted", text: "b" })],
      ["redo noted"],
    ],
  ])("%s", (_, undone, since, plans) => expect(planned(undone, ...since)).toEqual(plans));
});
