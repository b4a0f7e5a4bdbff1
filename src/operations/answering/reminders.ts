import { deriveDocket } from "../../core/docket/derive-docket";
import type { ConversationId, MessageId, ReminderId } from "../../core/kernel/ids";
import { trustedId } from "../../core/kernel/ids";
import type { ReminderStyle } from "../../core/kernel/reminder-style";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { isOpen, stillAwaited } from "../../core/turns/expectations";
import { reminderTimes, verdictOn } from "../../core/waiting/plan-reminders";
import { reminderText } from "../../core/waiting/reminder-text";
import { htmlOfText } from "../../core/writing/html-of-text";
import { planAnswer } from "../../core/writing/plan-answer";
import { dateOffsetOf } from "../../mail/index";
import { allMembers, grantOfMember, hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { inTransaction, inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { conversationRows, correspondenceOf, rawMessage } from "../../storage/conversation/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import type { SheetRow } from "../../storage/lists/index";
import {
  addReminders,
  dueReminders,
  endReminder,
  lockReminder,
  putOffReminder,
  type Reminder,
  remindersOf,
  stopReminders,
} from "../../storage/mail/index";
import type { Deps, Within } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { answerWithin } from "./answer-conversation";

/** How somebody is reminded: in what style, or with what text; once or in a series. */
export type ReminderPlan = ReminderStyle & {
  /** Instead of the prepared text; it is the same for all then. */
  readonly text: string | null;
  readonly isSeries: boolean;
};

/** Plans reminders for conversations of a tray that wait; gives for how many there is one. Those that do not wait are left out. */
export async function planReminders(
  deps: Deps,
  grant: TrayGrant,
  writer: { readonly name: string },
  ids: readonly ConversationId[],
  plan: ReminderPlan,
): Promise<Result<number, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const now = deps.now();
  const hours = await hoursOfTray(deps.db, grant.tray);
  const times = reminderTimes(now, hours, plan.isSeries);
  if (times.length === 0) return err({ kind: "never-open" });
  const count = await inTransaction(deps.db, async (trx) => {
    const held = await lockConversations(trx, grant.tray.id, ids);
    const rows = new Map(
      (
        await conversationRows(
          trx,
          grant,
          held.map(({ id }) => id),
        )
      ).map((row) => [row.id, row]),
    );
    const facts = await factsOf(
      trx,
      held.map(({ id }) => id),
    );
    const planned = held.flatMap(({ id }) => {
      const docket = deriveDocket(facts.get(id) ?? NOTHING_HAPPENED);
      const expectation = docket.expectations.find(isOpen);
      const row = rows.get(id);
      if (docket.standing.kind !== "waiting" || expectation === undefined || row === undefined) return [];
      const html = htmlOfText(plan.text ?? preparedText(row, writer, plan, { now, zone: grant.tray.timeZone }));
      return times.map((sendAt) => ({
        id: trustedId<ReminderId>(deps.newId()),
        trayId: grant.tray.id,
        conversationId: id,
        expectationId: expectation.id,
        sendAt,
        html,
        style: null,
        madeBy: grant.memberId,
      }));
    });
    await addReminders(trx, planned, now);
    return new Set(planned.map(({ conversationId }) => conversationId)).size;
  });
  if (count === 0) return err({ kind: "nothing-awaited" });
  for (const conversationId of ids) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok(count);
}

function preparedText(
  row: SheetRow,
  writer: { readonly name: string },
  style: ReminderStyle,
  { now, zone }: { readonly now: SheetRow["standingSince"]; readonly zone: string },
): string {
  const asked = row.marks.findLast(([, kind]) => kind === "w")?.[0] ?? row.standingSince;
  const name = row.who.includes("@") ? "" : row.who;
  const about = { name, subject: row.subject, askedAt: asked as typeof now, now, zone, writer: writer.name };
  return reminderText(about, style);
}

/** The text that a reminder would have, for looking it over. */
export async function previewReminder(
  deps: Deps,
  grant: TrayGrant,
  writer: { readonly name: string },
  id: ConversationId,
  style: ReminderStyle,
): Promise<string | null> {
  const [row] = await conversationRows(deps.db, grant, [id]);
  if (row === undefined) return null;
  return preparedText(row, writer, style, { now: deps.now(), zone: grant.tray.timeZone });
}

/** The reminders that are still to go for conversations of a tray. */
export function remindersToGo(deps: Deps, grant: TrayGrant, ids: readonly ConversationId[]): Promise<Reminder[]> {
  return remindersOf(deps.db, grant, ids);
}

/** Stops what is still to go. */
export async function callOffReminders(
  deps: Deps,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<Result<number, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const count = await stopReminders(deps.db, grant, ids);
  for (const conversationId of ids) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok(count);
}

const MAX_AT_ONCE = 100;

/** Sends the reminders whose time has come, to whoever has still not answered; gives how many went. */
export async function sendReminders(deps: Deps): Promise<number> {
  let count = 0;
  const problems: unknown[] = [];
  for (const reminder of await dueReminders(deps.db, deps.now(), MAX_AT_ONCE)) {
    // One that cannot be sent must not keep the others from going.
    const sent = await attempt(deps, reminder).catch((problem) => void problems.push(problem));
    if (sent === true) count += 1;
  }
  if (problems.length > 0) throw problems[0];
  return count;
}

async function attempt(deps: Deps, reminder: Reminder): Promise<boolean> {
  const sent = await inTransactionUnlessRefused(deps.db, (trx) => sendOne(trx, deps, reminder));
  if (!sent.ok) await inTransaction(deps.db, (trx) => endReminder(trx, reminder.id, { reason: sent.error.kind }));
  deps.publishChange({ trayId: reminder.trayId, conversationId: reminder.conversationId });
  return sent.ok && sent.value;
}

async function sendOne(trx: Transaction, deps: Within, reminder: Reminder): Promise<Result<boolean, Refusal>> {
  const { id, conversationId, trayId, madeBy } = reminder;
  if (!(await lockReminder(trx, id))) return ok(false);
  const grant = await grantOfMember(trx, madeBy, trayId, deps.now());
  const writer = (await allMembers(trx)).find((member) => member.id === madeBy);
  if (grant === null || writer === undefined) return err({ kind: "no-such", what: "member" });
  await lockConversations(trx, trayId, [conversationId]);
  const facts = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
  const messages = await correspondenceOf(trx, grant, conversationId);
  const theirs = messages.findLast(({ direction, kind }) => direction === "in" && kind === "person");
  const offset = theirs === undefined ? null : await clockOf(trx, grant, theirs.id);
  const verdict = verdictOn(reminder.expectationId, facts, await hoursOfTray(trx, grant.tray), deps.now(), offset);
  if (verdict.kind === "later") {
    await putOffReminder(trx, id, verdict.at);
    return ok(false);
  }
  if (verdict.kind === "stop") {
    await endReminder(trx, id, { reason: verdict.reason });
    return ok(false);
  }
  const expectation = deriveDocket(facts).expectations.find((one) => one.id === reminder.expectationId);
  if (expectation === undefined) return err({ kind: "nothing-awaited" });
  const html = reminder.html ?? (await htmlNow(trx, deps, grant, writer, reminder));
  if (html === null) return err({ kind: "nothing-awaited" });
  const answer = planAnswer(messages, grant.tray.addresses);
  const last = messages.findLast(({ direction }) => direction === "out");
  const known = [...(last?.recipients.to ?? []), ...answer.to];
  const awaited = expectation.from.length === 0 ? answer.to.map(({ address }) => address) : stillAwaited(expectation);
  const to = awaited.map((address) => known.find((one) => one.address === address) ?? { name: "", address });
  const sent = await answerWithin(trx, deps, grant, writer, conversationId, {
    to,
    cc: [],
    subject: answer.subject,
    html,
    after: { kind: "wait" },
    anyway: true,
  });
  if (!sent.ok) return sent;
  await endReminder(trx, id, { messageId: sent.value });
  return ok(true);
}

// What a rule began is written when it goes.
async function htmlNow(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  writer: { readonly name: string },
  { conversationId, style }: Reminder,
): Promise<string | null> {
  const [row] = await conversationRows(trx, grant, [conversationId]);
  if (row === undefined || style === null) return null;
  return htmlOfText(preparedText(row, writer, style, { now: deps.now(), zone: grant.tray.timeZone }));
}

// How far the clock of whoever wrote a message is ahead of UTC, as it is dated.
async function clockOf(trx: Transaction, grant: TrayGrant, id: MessageId): Promise<number | null> {
  const message = await rawMessage(trx, grant, id);
  return message === null ? null : dateOffsetOf(message.raw);
}
