import { WHOM, type Whom } from "../../core/deciding/decision";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { MemberId } from "../../core/kernel/ids";
import { saveSetting, settingsOf } from "../../storage/access/index";
import type { Database } from "../../storage/base/index";

/** What becomes of a conversation once an answer is on its way. */
export const AFTER_SENDING = ["expect", "settle", "keep"] as const;

/** What a member chose when she last wrote to somebody. */
export type ReplyDefault = { readonly after: (typeof AFTER_SENDING)[number]; readonly whom: Whom };

const keyOf = (address: EmailAddress) => `after-sending/${address}`;

/** What a member chose last for somebody; null where she never wrote to her. */
export async function replyDefaultFor(
  db: Database,
  memberId: MemberId,
  address: EmailAddress | undefined,
): Promise<ReplyDefault | null> {
  if (address === undefined) return null;
  const key = keyOf(address);
  const kept = (await settingsOf(db, memberId, [key])).get(key) as { after?: unknown; whom?: unknown } | undefined;
  const after = AFTER_SENDING.find((one) => one === kept?.after);
  return after === undefined ? null : { after, whom: WHOM.find((one) => one === kept?.whom) ?? "any" };
}

/** Remembers what a member chose for somebody. */
export function saveReplyDefault(
  db: Database,
  memberId: MemberId,
  address: EmailAddress,
  { after, whom }: ReplyDefault,
): Promise<void> {
  return saveSetting(db, memberId, keyOf(address), { after, whom });
}
