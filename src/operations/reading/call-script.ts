import { deriveDocket } from "../../core/docket/derive-docket";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { isOpen, stillAwaited } from "../../core/turns/expectations";
import { callScript } from "../../core/waiting/call-script";
import { asksIn } from "../../core/writing/detected-questions";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { contactsWith, conversationRow, correspondenceOf } from "../../storage/conversation/index";
import { factsOf } from "../../storage/facts/index";
import type { Said } from "../../texts/said";
import type { Deps } from "../base/deps";

/** A prepared note for telephoning instead of waiting; null when the tray has no such conversation. */
export async function getCallScript(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<readonly Said[] | null> {
  const row = await conversationRow(deps.db, grant, id);
  if (row === null) return null;
  const [facts, messages, hours] = await Promise.all([
    factsOf(deps.db, [id]),
    correspondenceOf(deps.db, grant, id),
    hoursOfTray(deps.db, grant.tray),
  ]);
  const awaited = deriveDocket(facts.get(id) ?? NOTHING_HAPPENED).expectations.find(isOpen);
  const [address = row.whoAddress as EmailAddress] = awaited === undefined ? [] : stillAwaited(awaited);
  const [contact] = await contactsWith(deps.db, grant.tray.id, [address]);
  const asked =
    messages.find((message) => message.id === awaited?.messageId) ??
    messages.findLast(({ direction }) => direction === "out");
  const named = messages.flatMap(({ recipients }) => [...recipients.to, ...recipients.cc]);
  const known = named.find((one) => one.address === address && one.name !== "")?.name;
  return callScript({
    name: contact?.name ?? known ?? (row.whoAddress === address && row.who !== "" ? row.who : address),
    organisation: contact?.organisation ?? "",
    phone: contact?.phone ?? "",
    questions: asked === undefined ? [] : asksIn(asked.ownText, deps.now(), hours).map(({ text }) => text),
    subject: row.subject,
  });
}
