import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import { asksIn, commits, type Found, promisesIn } from "../../core/writing/detected-questions";
import { mentionsAttachment } from "../../core/writing/draft-attachment";
import { sentencesOf } from "../../core/writing/sentences";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import type { Deps } from "../base/deps";
import { usuallyAnsweredBy } from "./response-times";

/** What a text asks of whoever reads it, and what it commits its writer to. */
export type TextSuggestions = {
  readonly asks: readonly Found[];
  readonly promises: readonly Found[];
  /** The sentence by which something goes along with it; null where none says so. */
  readonly encloses: string | null;
  /** By when whoever gets it usually has answered; null where nothing is known. */
  readonly usuallyBy: Instant | null;
};

/** What a text that is being written to somebody says, as the tray's hours and today have its dates. */
export async function getTextSuggestions(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  to: EmailAddress | null = null,
): Promise<TextSuggestions> {
  const [hours, now] = [await hoursOfTray(deps.db, grant.tray), deps.now()];
  const usuallyBy = to === null ? null : await usuallyAnsweredBy(deps, grant, to, hours);
  const said = { asks: asksIn(text, now, hours), promises: promisesIn(text, now, hours) };
  return { ...said, encloses: mentionsAttachment(text), usuallyBy };
}

/** What somebody outside committed herself to in a text, with a date that is still to come; null for nothing like that. */
export async function promisedBy(
  deps: Deps,
  grant: TrayGrant,
  text: string,
  writtenAt: Instant,
): Promise<Found | null> {
  // Most letters promise nothing, and their dates need not be read.
  if (!sentencesOf(text).some((sentence) => commits(sentence.text, true))) return null;
  const promises = promisesIn(text, writtenAt, await hoursOfTray(deps.db, grant.tray));
  return promises.find(({ date }) => date !== null && date.at > deps.now()) ?? null;
}
