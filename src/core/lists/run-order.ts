import { listTexts } from "../../texts/en/list";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(listTexts);
/** The orders of a sort run. */
export const RUN_ORDERS = ["newest", "oldest", "person", "quick"] as const;
export type RunOrder = (typeof RUN_ORDERS)[number];

export const RUN_ORDER_NAMES: Readonly<Record<RunOrder, Said>> = {
  newest: said("list.newestFirst"),
  oldest: said("list.oldestFirst"),
  person: said("list.byPerson"),
  quick: said("list.likelyQuickFirst"),
};

/** What of a conversation says where it comes in a run. */
export type InRun = {
  readonly id: string;
  readonly who: string;
  readonly newestText: string;
  readonly messageCount: number;
  readonly hasAttachment: boolean;
  readonly listedAt: number;
};

// An earlier message to look at, or an attachment to open, costs about as much as so many words.
const CHARACTERS_A_MESSAGE = 80;
const CHARACTERS_AN_ATTACHMENT = 60;

/** About how much there is to read before one can decide, in characters. */
function effort({ newestText, messageCount, hasAttachment }: InRun): number {
  return newestText.length + (messageCount - 1) * CHARACTERS_A_MESSAGE + (hasAttachment ? CHARACTERS_AN_ATTACHMENT : 0);
}

/** The conversations of a run in its order; equal ones newest first. */
export function inRunOrder<T extends InRun>(rows: readonly T[], order: RunOrder): T[] {
  const newestFirst = (a: T, b: T) => b.listedAt - a.listedAt || (a.id < b.id ? 1 : -1);
  switch (order) {
    case "newest":
      return rows.toSorted(newestFirst);
    case "oldest":
      return rows.toSorted((a, b) => -newestFirst(a, b));
    case "person":
      return rows.toSorted((a, b) => a.who.localeCompare(b.who) || newestFirst(a, b));
    case "quick":
      return rows.toSorted((a, b) => effort(a) - effort(b) || newestFirst(a, b));
  }
}

/** True for the name of an order as it appears in a URL. */
export function isRunOrder(text: string): text is RunOrder {
  return (RUN_ORDERS as readonly string[]).includes(text);
}
