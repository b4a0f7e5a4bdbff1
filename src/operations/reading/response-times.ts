import { answersIn, type UsualTime, usualSpan, usualTime } from "../../core/flow/answer-times";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import type { WorkingHours } from "../../core/worktime/working-hours";
import type { TrayGrant } from "../../storage/access/index";
import { exchangesWith } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** How long some people take to answer a tray, and under an empty text everybody; null for those of whom too little is known. */
export async function responseTimesOf(
  deps: Deps,
  grant: TrayGrant,
  people: readonly EmailAddress[],
  hours: WorkingHours,
): Promise<ReadonlyMap<string, UsualTime | null>> {
  const exchanges = await exchangesWith(deps.db, grant, people);
  const timeOf = (all: Parameters<typeof answersIn>[0][]) => usualTime(all.flatMap(answersIn), hours);
  return new Map([...exchanges].map(([who, all]) => [who, timeOf([...all])]));
}

/**
 * By when somebody who is asked now will usually have answered: nine in ten of her answers are there by then, or of
 * everybody's where she gave too few. Null where nothing is known.
 */
export async function usuallyAnsweredBy(
  deps: Deps,
  grant: TrayGrant,
  person: EmailAddress,
  hours: WorkingHours,
): Promise<Instant | null> {
  const usual = await responseTimesOf(deps, grant, [person], hours);
  const time = usual.get(person) ?? usual.get("") ?? null;
  return time === null ? null : (usualSpan(deps.now(), time, hours)?.to ?? null);
}
