import type { ConversationId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import { err, ok, type Result } from "../core/kernel/result";
import { type DateOffer, dateOffers } from "../core/worktime/date-offers";
import { dateProblemInWords, readDate } from "../core/worktime/read-date";
import type { DayEdge } from "../core/worktime/working-hours";
import { hoursOfTray, newestTextsFromOutside, type TrayGrant } from "../storage/index";
import type { Deps } from "./deps";

/** The dates to offer in a tray: from its hours, and from what a conversation's newest messages from outside name. */
export async function datesToOffer(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId | null,
  edge: DayEdge,
): Promise<DateOffer[]> {
  const [hours, texts] = await Promise.all([
    hoursOfTray(deps.db, grant.tray),
    conversationId === null ? [] : newestTextsFromOutside(deps.db, grant, conversationId),
  ]);
  return dateOffers(deps.now(), hours, texts, edge);
}

/** What somebody means who types a date in a tray, or in words why it is none. */
export async function understandDate(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  edge: DayEdge,
): Promise<Result<Instant, string>> {
  const read = readDate(text, deps.now(), await hoursOfTray(deps.db, grant.tray), edge);
  return read.ok ? ok(read.value) : err(dateProblemInWords(read.error));
}
