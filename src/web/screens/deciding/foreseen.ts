import {
  type DecisionNames,
  decisionInWords,
  foreseen,
  resultingStanding,
} from "../../../core/deciding/decision-shown";
import type { StandingKind } from "../../../core/standing/standing";
import type { commonTexts } from "../../../texts/en/common";
import type { decidingTexts } from "../../../texts/en/deciding";
import type { Say } from "../../../texts/say";
import type { RowView } from "../../server/base/row-view.server";
import {
  countOf,
  type DecisionTarget,
  type Pending,
  type PostedDecision,
  type SingleDecision,
  singleDecisions,
} from "./posted-decision";

type Named = readonly { readonly id: string; readonly name: string }[];

/** What a tray has, with their names. */
export type TrayLists = { readonly members: Named; readonly categories: Named; readonly groups?: Named };

const NO_LISTS: TrayLists = { members: [], categories: [] };

/** Where a posted decision leads from a standing; null when it moves nothing. */
export function postedResultingStanding(decision: PostedDecision, from: StandingKind): StandingKind | null {
  return singleDecisions(decision).reduce<StandingKind | null>(
    (to, one) => resultingStanding(one, to ?? from) ?? to,
    null,
  );
}

/** A row as it will be once what is under way has been confirmed. */
export function withPending(row: RowView, pending: readonly Pending[]): RowView {
  let shown: RowView = row;
  for (const { decision, rows } of pending) {
    if (!rows.some(({ id }) => id === row.id)) continue;
    const leads = postedResultingStanding(decision, row.standing);
    if (leads !== null) shown = { ...shown, standing: leads };
    if (decision.kind === "unread") shown = { ...shown, unread: true };
    for (const one of singleDecisions(decision)) shown = foreseen(one, shown, namesFor(one, NO_LISTS));
  }
  return shown;
}

/** What was decided, in the few words that the message with the Undo button has. */
export function saidOf(
  say: Say<typeof decidingTexts & typeof commonTexts>,
  decision: PostedDecision,
  lists: TrayLists,
  target: DecisionTarget,
): string {
  const count = countOf(target);
  const about =
    count === 1 ? target.rows[0]?.subject || say("common.noSubjectInside") : say("common.conversations", { count });
  const what = singleDecisions(decision).map((one) => say(decisionInWords(one, namesFor(one, lists))));
  return `${decision.kind === "unread" ? say("deciding.unread") : what.join(", ")}: ${about}`;
}

// What was created a moment ago, and records, are called as the decision itself says.
function namesFor({ called }: SingleDecision, { members, categories, groups = [] }: TrayLists): DecisionNames {
  const nameIn = (list: Named) => (id: string) => called ?? list.find((one) => one.id === id)?.name ?? "";
  return { member: nameIn(members), category: nameIn(categories), group: nameIn(groups), record: () => called ?? "" };
}
