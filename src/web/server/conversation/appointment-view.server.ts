import { mailboxName } from "../../../core/kernel/email-address";
import type { Appointment, AppointmentTime, Participation } from "../../../core/message/appointment";
import { calendarDayInWords, dayAndTimeInFull } from "../../../core/time/day-words";
import type { English } from "../../../texts/en/index";
import type { PlainKey } from "../../../texts/say";
import type { Reading } from "../base/row-view.server";
import { speak, worded } from "../base/say.server";

const PARTICIPATION_NAMES: Readonly<Record<Participation, PlainKey<English>>> = {
  "needs-action": "conversation.notAnsweredYet",
  accepted: "conversation.accepted",
  declined: "conversation.declined",
  tentative: "conversation.acceptedTentatively",
  delegated: "conversation.passedOn",
};

/** An event that a message carries, in words; its times in the reader's zone. */
export function appointmentView(appointment: Appointment, reading: Pick<Reading, "now" | "zone">) {
  const { summary, method, organiser, attendees, attendeeCount, place, repeats, isCancelled } = appointment;
  const answers = method === "REPLY" ? attendees : [];
  return {
    summary: summary || speak("common.noSubject"),
    head: isCancelled
      ? speak("conversation.cancelled")
      : method === "REPLY"
        ? speak("conversation.answerToAnInvitation")
        : speak("conversation.invitation"),
    isCancelled,
    when: `${whenInWords(appointment, reading)}${repeats ? speak("conversation.repeated") : ""}`,
    place,
    organiser: organiser === null ? null : mailboxName(organiser),
    answers: answers.map(
      ({ participation, ...who }) => `${mailboxName(who)}: ${speak(PARTICIPATION_NAMES[participation])}`,
    ),
    invited: answers.length > 0 ? [] : attendees.map((one) => invitedInWords(one)),
    more: Math.max(0, attendeeCount - attendees.length),
  };
}

export type AppointmentView = ReturnType<typeof appointmentView>;

function invitedInWords({ participation, ...who }: Appointment["attendees"][number]): string {
  const said = participation === "needs-action" ? "" : ` (${speak(PARTICIPATION_NAMES[participation])})`;
  return `${mailboxName(who)}${said}`;
}

function whenInWords({ begins, ends }: Appointment, reading: Pick<Reading, "now" | "zone">): string {
  if (begins === null) return speak("conversation.noTimeGiven");
  const from = timeInWords(begins, reading);
  const to = ends === null ? null : timeInWords(ends, reading);
  const [fromDay = "", toDay = ""] = [from, to ?? ""].map((words) => words.split(", ")[0] ?? "");
  const until = to === null || to === from ? "" : ` – ${fromDay === toDay ? (to.split(", ").at(-1) ?? "") : to}`;
  return `${from}${until}${writtenElsewhere(begins, reading)}`;
}

function timeInWords(time: AppointmentTime, { now, zone }: Pick<Reading, "now" | "zone">): string {
  if (time.kind === "moment") return speak(dayAndTimeInFull(time.at, now, zone));
  const [day = "", hour] = time.written.split("T");
  return `${worded(calendarDayInWords(day))}${hour === undefined ? "" : `, ${hour}`}`;
}

// What the writer's clock says, where it is another than the reader's.
function writtenElsewhere(time: AppointmentTime, { now, zone }: Pick<Reading, "now" | "zone">): string {
  if (time.kind === "local") return time.written.includes("T") ? speak("conversation.withoutAZone") : "";
  if (time.zone === null || !isKnownZone(time.zone)) return "";
  const there = speak(dayAndTimeInFull(time.at, now, time.zone));
  return there === speak(dayAndTimeInFull(time.at, now, zone))
    ? ""
    : speak("conversation.in", { there, zone: time.zone });
}

function isKnownZone(zone: string): boolean {
  try {
    return new Intl.DateTimeFormat("en", { timeZone: zone }) !== null;
  } catch {
    return false;
  }
}
