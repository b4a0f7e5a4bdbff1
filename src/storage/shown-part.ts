import type { EmailAddress } from "../core/kernel/email-address";
import type { Instant } from "../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { param } from "./rows";
import type { TrayGrant } from "./trays";

/** The parts in which a message can be shown: its text, or its HTML as it was sent. */
export type ShownPart = "text" | "html";

/** Keeps in which part a member wants to see what somebody writes. */
export async function keepShownPart(
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
