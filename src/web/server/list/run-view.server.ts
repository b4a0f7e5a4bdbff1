import { isRunOrder, type RunOrder } from "../../../core/lists/run-order";
import {
  type Deps,
  type Member,
  type RunConversation,
  sortRun,
  type TrayGrant,
  type TrayNames,
} from "../../../operations/index.server";
import { type Reading, readingOf } from "../base/row-view.server";
import { conversationView } from "../conversation/conversation-view.server";
import { proposalViews } from "../conversation/proposal-view.server";
import { listedRowView } from "./list-view.server";

/** The order of a run as its URL names it; newest first where it names none. */
export function runOrderIn(query: URLSearchParams): RunOrder {
  const asked = query.get("order") ?? "";
  return isRunOrder(asked) ? asked : "newest";
}

/** What comes next in a sort run, ready to be drawn, and how many there are in all. */
export async function runPartView(deps: Deps, grant: TrayGrant, member: Member, run: Parameters<typeof sortRun>[3]) {
  const { rows, total } = await sortRun(deps, grant, member, run);
  const reading = readingOf(member, deps.now(), grant.covering);
  return { rows: rows.map((row) => listedRowView(row, reading)), total };
}

export type RunPartView = Awaited<ReturnType<typeof runPartView>>;

/** A conversation of a sort run, ready to be drawn. */
export function runView(
  { open, ...proposed }: RunConversation,
  names: TrayNames & { readonly slug: string },
  reading: Reading,
) {
  return { ...conversationView(open, names, reading), proposals: proposalViews(proposed, names, open.row.who) };
}

export type RunView = ReturnType<typeof runView>;
