import type { EmailAddress } from "../../core/kernel/email-address";
import type { Instant } from "../../core/kernel/instant";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** The parts in which a message can be shown: its text, or its HTML as it was sent. */
export type ShownPart = "text" | "html";

/** Keeps in which part a member wants to see what somebody writes. */
export async function saveShownPart(
  db: Database,
  { memberId }: TrayGrant,
  address: EmailAddress,
  shown: { readonly part: ShownPart; readonly at: Instant },
): Promise<void> {
  await knexOf(db)("shown_part")
    .insert({ member_id: memberId, address, part: shown.part, at: param(shown.at) })
    .onConflict(["member_id", "address"])
    .merge(["part", "at"]);
}
