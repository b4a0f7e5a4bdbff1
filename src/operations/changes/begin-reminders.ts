import { type ReminderId, trustedId } from "../../core/kernel/ids";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { timesOfBegunSeries } from "../../core/waiting/plan-reminders";
import { hoursOfTray } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import type { NewEntry } from "../../storage/facts/index";
import { addReminders } from "../../storage/mail/index";
import type { Within } from "../base/deps";
import { cachedTrays } from "../base/routing-cache";

/** Plans the reminders that entries begin, each with what is known of its conversation then. */
export async function beginReminders(
  trx: Transaction,
  deps: Within,
  written: readonly { readonly entry: NewEntry; readonly known: ConversationFacts }[],
): Promise<void> {
  const now = deps.now();
  for (const { entry, known } of written) {
    const { effect, conversationId, trayId } = entry;
    if (effect.kind !== "reminders-begun") continue;
    const { expectationId, inNameOf: madeBy, tone, language } = effect;
    const tray = (await cachedTrays({ ...deps, db: trx })).find(({ id }) => id === trayId);
    if (tray === undefined) continue;
    const times = timesOfBegunSeries(known, now, await hoursOfTray(trx, tray));
    const reminders = times.map((sendAt) => {
      const id = trustedId<ReminderId>(deps.newId());
      return { id, trayId, conversationId, expectationId, sendAt, html: null, style: { tone, language }, madeBy };
    });
    await addReminders(trx, reminders, now);
  }
}
