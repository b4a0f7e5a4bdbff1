import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type SeriesMoment, seriesMoments } from "../../core/later-letters/series";
import { theirNextMorning } from "../../core/waiting/recipient-hours";
import { type DateOffer, dateOffers } from "../../core/worktime/date-offers";
import { dateProblemInWords, otherDate, readDate, readDay } from "../../core/worktime/read-date";
import type { DayEdge } from "../../core/worktime/working-hours";
import { dateOffsetOf } from "../../mail/index";
import { hoursOfTray, newestTextsFromOutside, type TrayGrant } from "../../storage/access/index";
import { conversationRow, newestFrom } from "../../storage/conversation/index";
import { beginningsOf } from "../../storage/rules/index";
import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { usuallyAnsweredBy } from "./response-times";

const said = saidOf(timeTexts);

/**
 * The dates to offer in a tray: from its hours, and from what a conversation's newest messages from outside name; `asUsual`
 * with when its correspondent usually has answered.
 */
export async function datesToOffer(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId | null,
  edge: DayEdge,
  asUsual = false,
): Promise<DateOffer[]> {
  const [hours, texts] = await Promise.all([
    hoursOfTray(deps.db, grant.tray),
    conversationId === null ? [] : newestTextsFromOutside(deps.db, grant, conversationId),
  ]);
  const offers = dateOffers(deps.now(), hours, texts, edge);
  const row = asUsual && conversationId !== null ? await conversationRow(deps.db, grant, conversationId) : null;
  const at = row === null ? null : await usuallyAnsweredBy(deps, grant, row.whoAddress as EmailAddress, hours);
  return at === null ? offers : [{ label: said("time.asTheyUsuallyTake"), at }, ...offers];
}

/** When the next working day of somebody outside begins, by the clock that their newest letter is dated with. */
export type TheirMorning = { readonly at: Instant; readonly name: string; readonly offsetMinutes: number };

/** The same of an address; null where no letter tells. */
export async function theirMorning(
  deps: Deps,
  { tray }: TrayGrant,
  address: EmailAddress,
): Promise<TheirMorning | null> {
  const newest = await newestFrom(deps.db, tray.id, address);
  if (newest === null) return null;
  const raw = (await beginningsOf(deps.db, [newest.id])).get(newest.id);
  const offsetMinutes = raw === undefined ? null : dateOffsetOf(raw);
  if (offsetMinutes === null) return null;
  return { at: theirNextMorning(deps.now(), offsetMinutes), name: newest.name || address, offsetMinutes };
}

/** When the letters of a series would go that is about the day of a moment, those that are over among them. */
export async function seriesAround(deps: Deps, grant: TrayGrant, about: Instant): Promise<SeriesMoment[]> {
  return seriesMoments(about, await hoursOfTray(deps.db, grant.tray));
}

/** A moment that somebody may mean, and the other one where the same figures are read in two ways. */
export type Meant = { readonly at: Instant; readonly other: Instant | null };

/** What somebody means who types a date in a tray, or in words why it is none. */
export async function understandDate(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  edge: DayEdge,
): Promise<Result<Meant, Said>> {
  const [now, hours] = [deps.now(), await hoursOfTray(deps.db, grant.tray)];
  const read = readDate(text, now, hours, edge);
  if (!read.ok) return err(dateProblemInWords(read.error));
  return ok({ at: read.value, other: otherDate(text, now, hours, edge) });
}

/** The calendar day that a text means, also one that is over; a refusal is a sentence for beside the field. */
export async function understandDay(deps: Deps, grant: TrayGrant, text: string): Promise<Result<string, Said>> {
  const read = readDay(text, deps.now(), await hoursOfTray(deps.db, grant.tray));
  return read.ok ? read : err(dateProblemInWords(read.error));
}
