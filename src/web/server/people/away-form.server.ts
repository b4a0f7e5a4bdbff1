import type { Cover, TimeOff } from "../../../core/cover/covering";
import { type MemberId, readId, type TimeOffId, type TrayId } from "../../../core/kernel/ids";
import { later } from "../../../core/kernel/instant";
import { err, ok, type Result } from "../../../core/kernel/result";
import { dayAtHour, endOfCalendarDay } from "../../../core/time/calendar-day";
import type { OpenHours } from "../../../core/worktime/working-hours";
import { type Deps, recordOfCode, type TrayGrant } from "../../../operations/index.server";
import { speak } from "../base/say.server";
import { readWeek } from "./week-form.server";

/** What is wrong, by the name of the field. */
export type AwayProblems = Readonly<Record<string, string>>;

/** Something that is done about hours and times off. */
export type AwayStep =
  /** Null takes the tray's week. */
  | { readonly do: "week"; readonly week: readonly (OpenHours | null)[] | null }
  /** `memberId` null is oneself. */
  | ({ readonly do: "plan"; readonly memberId: MemberId | null } & Pick<TimeOff, "from" | "until" | "covers">)
  | { readonly do: "end"; readonly memberId: MemberId | null; readonly id: TimeOffId };

/** The posted step in the zone of whoever posted it, or what is wrong with its fields. */
export async function readAwayStep(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  zone: string,
): Promise<Result<AwayStep, AwayProblems>> {
  switch (form.get("do")) {
    case "week":
      return readOwnWeek(form);
    case "plan":
      return readPlan(deps, grant, form, zone);
    case "end": {
      const id = readId<TimeOffId>(text(form, "id"));
      if (!id.ok) return err({ id: speak("server.noTimeOff") });
      return ok({ do: "end", memberId: memberOf(form), id: id.value });
    }
    default:
      return err({ do: speak("people.thatIsNothingThatCan") });
  }
}

const text = (form: FormData, name: string) => String(form.get(name) ?? "").trim();

function memberOf(form: FormData): MemberId | null {
  const member = readId<MemberId>(text(form, "member"));
  return member.ok ? member.value : null;
}

function readOwnWeek(form: FormData): Result<AwayStep, AwayProblems> {
  if (form.get("own") === null) return ok({ do: "week", week: null });
  const problems: Record<string, string> = {};
  const week = readWeek(form, problems);
  return Object.keys(problems).length > 0 ? err(problems) : ok({ do: "week", week });
}

async function readPlan(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  zone: string,
): Promise<Result<AwayStep, AwayProblems>> {
  const problems: Record<string, string> = {};
  const from = dayAtHour(text(form, "from"), 0, zone);
  const end = endOfCalendarDay(text(form, "to"), zone);
  if (from === null) problems.from = speak("people.chooseTheFirstDay");
  if (end === null) problems.to = speak("people.chooseTheLastDay");
  else if (from !== null && end < from) problems.to = speak("people.itEndsBeforeItBegins");
  else if (end <= deps.now()) problems.to = speak("people.thatIsOver");
  const covers = [...(await coversOfRecords(deps, grant, form, problems)), ...coversOfTrays(form)];
  if (Object.keys(problems).length > 0 || from === null || end === null) return err(problems);
  return ok({ do: "plan", memberId: memberOf(form), from, until: later(end, 1), covers });
}

function coversOfTrays(form: FormData): Cover[] {
  return [...form.keys()].flatMap((name) => {
    const tray = readId<TrayId>(name.startsWith("cover-") ? name.slice("cover-".length) : "");
    const member = readId<MemberId>(text(form, name));
    return tray.ok && member.ok ? [{ trayId: tray.value, recordId: null, memberId: member.value }] : [];
  });
}

async function coversOfRecords(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  problems: Record<string, string>,
): Promise<Cover[]> {
  const { tray } = grant;
  const code = text(form, "record");
  const said = text(form, "record-cover");
  if (code === "" && said === "") return [];
  const member = readId<MemberId>(said);
  const record = await recordOfCode(deps, grant, code);
  if (record === null)
    problems.record = code === "" ? speak("people.writeTheCodeOfThe") : speak("people.thereIsNoRecord", { code });
  if (!member.ok) problems["record-cover"] = speak("people.chooseWhoCoversIt");
  return record === null || !member.ok ? [] : [{ trayId: tray.id, recordId: record.id, memberId: member.value }];
}
