import { TZDate } from "@date-fns/tz";
import ICAL from "ical.js";
import { looseAddress, type Mailbox } from "../../core/kernel/email-address";
import { instant } from "../../core/kernel/instant";
import type { Appointment, AppointmentTime, Attendee, Participation } from "../../core/message/appointment";
import { plainLine } from "../../core/text/plain-line";

// An invitation to a whole town has less.
const MAX_CALENDAR_CHARACTERS = 4_000_000;
const MAX_EVENTS = 20;
const MAX_ATTENDEES = 50;
const MAX_LINE_CHARACTERS = 500;
const MAX_DESCRIPTION_CHARACTERS = 20_000;

/** What a calendar part says; `appointments` is null where it cannot be read. */
export type CalendarPart = { readonly method: string | null; readonly appointments: readonly Appointment[] | null };

/** Reads a text/calendar part (RFC 5545). It never throws. */
export function readCalendar(text: string): CalendarPart {
  const whole = text.slice(0, MAX_CALENDAR_CHARACTERS);
  const method = /^METHOD:([A-Z-]{3,20})\s*$/im.exec(whole)?.[1]?.toUpperCase() ?? null;
  try {
    const calendars = [ICAL.parse(whole)].flat(1) as unknown[];
    const calendar = new ICAL.Component((typeof calendars[0] === "string" ? calendars : calendars[0]) as string);
    const events = ["vevent", "vtodo"].flatMap((name) => calendar.getAllSubcomponents(name)).slice(0, MAX_EVENTS);
    return { method, appointments: events.map((event) => appointmentOf(event, method)) };
  } catch {
    return { method, appointments: null };
  }
}

function appointmentOf(event: ICAL.Component, method: string | null): Appointment {
  const attendees = event.getAllProperties("attendee");
  return {
    method,
    summary: lineIn(event, "summary"),
    description: textIn(event, "description").slice(0, MAX_DESCRIPTION_CHARACTERS),
    begins: timeIn(event, "dtstart"),
    ends: timeIn(event, "dtend") ?? endByDuration(event) ?? timeIn(event, "due"),
    place: lineIn(event, "location"),
    organiser: mailboxOf(event.getFirstProperty("organizer")),
    attendees: attendees.slice(0, MAX_ATTENDEES).flatMap(attendeeOf),
    attendeeCount: attendees.length,
    repeats: event.hasProperty("rrule") || event.hasProperty("rdate"),
    isCancelled: method === "CANCEL" || textIn(event, "status").toUpperCase() === "CANCELLED",
  };
}

function textIn(event: ICAL.Component, name: string): string {
  const value = event.getFirstPropertyValue(name);
  return value === null || value === undefined ? "" : String(value);
}

const lineIn = (event: ICAL.Component, name: string) => plainLine(textIn(event, name)).slice(0, MAX_LINE_CHARACTERS);

function timeIn(event: ICAL.Component, name: string): AppointmentTime | null {
  const property = event.getFirstProperty(name);
  const value = property?.getFirstValue();
  if (property === null || !(value instanceof ICAL.Time)) return null;
  const zone = property.getParameter("tzid");
  return timeOf(value, typeof zone === "string" ? zone : null);
}

function endByDuration(event: ICAL.Component): AppointmentTime | null {
  const duration = event.getFirstPropertyValue("duration");
  const begins = event.getFirstProperty("dtstart");
  const start = begins?.getFirstValue();
  if (!(duration instanceof ICAL.Duration) || !(start instanceof ICAL.Time)) return null;
  const end = start.clone();
  end.addDuration(duration);
  const zone = begins?.getParameter("tzid");
  return timeOf(end, typeof zone === "string" ? zone : null);
}

function timeOf(time: ICAL.Time, zone: string | null): AppointmentTime | null {
  if (time.isDate) return { kind: "local", written: time.toString() };
  if (time.zone === ICAL.Timezone.utcTimezone) return moment(time.toJSDate().getTime(), null);
  if (zone === null) return { kind: "local", written: time.toString().slice(0, 16) };
  // The file describes its own zones; of one that it only names, the name has to be known here.
  const at =
    time.zone === null || time.zone === undefined || time.zone === ICAL.Timezone.localTimezone
      ? new TZDate(time.year, time.month - 1, time.day, time.hour, time.minute, time.second, zone).getTime()
      : time.toJSDate().getTime();
  return Number.isNaN(at) ? { kind: "local", written: time.toString().slice(0, 16) } : moment(at, zone);
}

function moment(milliseconds: number, zone: string | null): AppointmentTime | null {
  return Number.isNaN(milliseconds) ? null : { kind: "moment", at: instant(milliseconds), zone };
}

const PARTICIPATIONS: Readonly<Record<string, Participation>> = {
  ACCEPTED: "accepted",
  COMPLETED: "accepted",
  "IN-PROCESS": "accepted",
  DECLINED: "declined",
  TENTATIVE: "tentative",
  DELEGATED: "delegated",
};

function attendeeOf(property: ICAL.Property): Attendee[] {
  const mailbox = mailboxOf(property);
  const said = property.getParameter("partstat");
  const participation = PARTICIPATIONS[typeof said === "string" ? said.toUpperCase() : ""] ?? "needs-action";
  return mailbox === null ? [] : [{ ...mailbox, participation }];
}

function mailboxOf(property: ICAL.Property | null): Mailbox | null {
  if (property === null) return null;
  const address = String(property.getFirstValue() ?? "")
    .replace(/^mailto:/i, "")
    .trim();
  const name = property.getParameter("cn");
  const named = plainLine(typeof name === "string" ? name : "").slice(0, MAX_LINE_CHARACTERS);
  if (!address.includes("@")) return named === "" ? null : { name: named, address: looseAddress("") };
  return { name: named, address: looseAddress(address) };
}
