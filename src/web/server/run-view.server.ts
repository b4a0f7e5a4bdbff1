import type { RunConversation, TrayNames } from "../../operations/index.server";
import { conversationView } from "./conversation-view.server";
import { proposalViews } from "./proposal-view.server";
import type { Reading } from "./words.server";

/** A conversation of a sort run, ready to be drawn. */
export function runView(
  { open, ...proposed }: RunConversation,
  names: TrayNames & { readonly slug: string },
  reading: Reading,
) {
  return { ...conversationView(open, names, reading), proposals: proposalViews(proposed, names, open.row.who) };
}

export type RunView = ReturnType<typeof runView>;
