import type { ConversationId, MemberId } from "../../core/kernel/ids";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { moveEffect } from "../../core/turns/move-effect";
import { membersOfTray, type TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { refusalsTexts } from "../../texts/en/refusals";
import { saidOf } from "../../texts/said";
import type { Within } from "../base/deps";
import { whoIsPresent } from "../reading/presence";
import type { Refusal } from "../refusals/refusal";
import type { Answer } from "./answer";

const said = saidOf(refusalsTexts);

/** Why an answer is not to go as its writer meant it: two answers to one letter, or one that has not read the newest. Null where nothing came between. */
export async function crossing(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  id: ConversationId,
  { seenVersion = null, anyway = false }: Pick<Answer, "seenVersion" | "anyway">,
  { messages }: ConversationFacts,
): Promise<Refusal | null> {
  if (anyway) return null;
  const unseen = messages.filter(({ version }) => seenVersion !== null && version > seenVersion);
  const nameOf = async (memberId: MemberId | null) =>
    (await membersOfTray(trx, grant.tray.id)).find((member) => member.id === memberId)?.name ??
    said("refusals.aColleague");
  const ours = unseen.findLast(({ direction }) => direction === "out");
  if (ours !== undefined) return { kind: "answered-meanwhile", who: await nameOf(ours.authorId) };
  const theirs = unseen.findLast((message) => moveEffect(message) === "they-wrote");
  if (theirs !== undefined) return { kind: "new-message", who: theirs.fromName || theirs.from };
  const writing = (await whoIsPresent({ ...deps, db: trx }, grant, id)).find(({ doing }) => doing === "writing");
  return writing === undefined ? null : { kind: "also-writing", who: await nameOf(writing.memberId) };
}
