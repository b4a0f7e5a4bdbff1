import type { ConversationId } from "../../core/kernel/ids";
import { type OpenHours, usualHours, type WorkingHours } from "../../core/worktime/working-hours";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import type { Tray, TrayGrant } from "./trays";

/** When a tray is staffed; the usual hours of an office where none were set. */
export async function hoursOfTray(db: Database, tray: Tray): Promise<WorkingHours> {
  const row: { hours: (OpenHours | null)[] | null; holidays: string[] } | undefined = await knexOf(db)("tray")
    .first("hours", "holidays")
    .where("id", tray.id);
  const usual = usualHours(tray.timeZone);
  return { ...usual, week: row?.hours ?? usual.week, holidays: row?.holidays ?? [] };
}

/** Sets when a tray is staffed, in its own time zone. */
export async function setHoursOfTray(
  db: Database,
  tray: Tray,
  { week, holidays }: Pick<WorkingHours, "week" | "holidays">,
): Promise<void> {
  await knexOf(db)("tray")
    .update({ hours: JSON.stringify(week), holidays: [...holidays] })
    .where("id", tray.id);
}

/** How long a tray gives itself for an answer, in working hours. */
export async function answerWithinOf(db: Database, { id }: Pick<Tray, "id">): Promise<number> {
  const row = await knexOf(db)("tray").first("answer_within_hours").where("id", id);
  return row?.answer_within_hours ?? 0;
}

/** Sets how long a tray gives itself for an answer. */
export async function setAnswerWithin(db: Database, { id }: Pick<Tray, "id">, workingHours: number): Promise<void> {
  await knexOf(db)("tray").where("id", id).update({ answer_within_hours: workingHours });
}

/** Whether a tray settles only what is filed. */
export async function filesBeforeSettling(db: Database, { id }: Pick<Tray, "id">): Promise<boolean> {
  const row = await knexOf(db)("tray").first("files_before_settling").where("id", id);
  return row?.files_before_settling ?? false;
}

/** Has a tray settle only what is filed, or anything. */
export async function setFilesBeforeSettling(db: Database, { id }: Pick<Tray, "id">, only: boolean): Promise<void> {
  await knexOf(db)("tray").where("id", id).update({ files_before_settling: only });
}

const NEWEST_TEXTS = 3;

/** The own texts of the newest messages from outside in a conversation, the newest first. */
export async function newestTextsFromOutside(db: Database, grant: TrayGrant, id: ConversationId): Promise<string[]> {
  const rows: { own_text: string }[] = await knexOf(db)("message")
    .join("message_text", "message_text.message_id", "message.id")
    .select("own_text")
    .where({ tray_id: grant.tray.id, conversation_id: id, direction: "in" })
    .orderBy("sent_at", "desc")
    .limit(NEWEST_TEXTS);
  return rows.map(({ own_text }) => own_text);
}
