import { isDeepStrictEqual } from "node:util";
import { type Docket, deriveDocket } from "../../core/docket/derive-docket";
import type { ConversationId } from "../../core/kernel/ids";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { isOpenAt, nextOpening } from "../../core/worktime/working-hours";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import {
  asStored,
  type DocketAsStored,
  factsOf,
  type HeldConversation,
  saveDockets,
  storedDocketsOf,
} from "../../storage/facts/index";
import { putOffReminder, remindersOf } from "../../storage/mail/index";

export type DifferentColumns = Readonly<Record<string, { readonly stored: unknown; readonly derived: unknown }>>;

/** What of a stored docket is not what the facts come to. */
export function differing(stored: DocketAsStored, docket: Docket): DifferentColumns {
  const expected = asStored(docket);
  return Object.fromEntries(
    Object.keys(expected)
      .filter((column) => !isDeepStrictEqual(stored[column], expected[column]))
      .map((column) => [column, { stored: stored[column], derived: expected[column] }]),
  );
}

/**
 * Works out again what is kept of some held conversations and follows from their mail, their decisions and the hours of the
 * tray: whose move it is, what is awaited, and when reminders go, which is in working time. Gives those that were otherwise.
 */
export async function recomputeColumns(
  trx: Transaction,
  grant: TrayGrant,
  held: readonly HeldConversation[],
): Promise<ConversationId[]> {
  const ids = held.map(({ id }) => id);
  const facts = await factsOf(trx, ids);
  const stored = new Map((await storedDocketsOf(trx, ids)).map(({ id, docket }) => [id, docket]));
  const otherwise = held.flatMap(({ id, version }) => {
    const docket = deriveDocket(facts.get(id) ?? NOTHING_HAPPENED);
    const kept = stored.get(id);
    return kept === undefined || Object.keys(differing(kept, docket)).length === 0 ? [] : [{ id, version, docket }];
  });
  await saveDockets(trx, otherwise);
  const moved = await moveReminders(trx, grant, ids);
  return [...new Set([...otherwise.map(({ id }) => id), ...moved])];
}

async function moveReminders(
  trx: Transaction,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<ConversationId[]> {
  const hours = await hoursOfTray(trx, grant.tray);
  const moved: ConversationId[] = [];
  for (const { id, conversationId, sendAt } of await remindersOf(trx, grant, ids)) {
    const opens = isOpenAt(sendAt, hours) ? null : nextOpening(sendAt, hours);
    if (opens === null) continue;
    await putOffReminder(trx, id, opens);
    moved.push(conversationId);
  }
  return moved;
}
