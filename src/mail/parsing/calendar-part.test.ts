import { describe, expect, it } from "vitest";
import { dateOf } from "../../core/kernel/instant";
import { readCalendar } from "./calendar-part";

const calendar = (lines: readonly string[], method = "REQUEST") =>
  ["BEGIN:VCALENDAR", "VERSION:2.0", `METHOD:${method}`, ...lines, "END:VCALENDAR"].join("\r\n");
const event = (...lines: readonly string[]) => ["BEGIN:VEVENT", "UID:1@vanehouse.example", ...lines, "END:VEVENT"];
const first = (text: string) => readCalendar(text).appointments?.[0];
const at = (text: string) => {
  const begins = first(text)?.begins;
  return begins?.kind === "moment" ? [dateOf(begins.at).toISOString(), begins.zone] : begins?.written;
};

describe("a calendar part", () => {
  it("says what, where, by whom and for whom", () => {
    const text = calendar(
      event(
        "SUMMARY:Tuning\\, before the feast",
        "LOCATION:St Brannoc\\, the loft",
        "DESCRIPTION:Bring the ladder.\\nThe key is with the sexton.",
        "ORGANIZER;CN=Perpetua Vane:mailto:Perpetua.Vane@vanehouse.example",
        "ATTENDEE;CN=Ines Varga;PARTSTAT=ACCEPTED:mailto:ines@ottermoor.example",
        'ATTENDEE;CN="Quayle, Otto";PARTSTAT=DECLINED:MAILTO:otto@quayle.example',
        "ATTENDEE:mailto:jory@tamm.example",
        "DTSTART:20261124T100000Z",
        "DURATION:PT90M",
        "RRULE:FREQ=WEEKLY",
      ),
    );
    expect(first(text)).toEqual({
      method: "REQUEST",
      summary: "Tuning, before the feast",
      description: "Bring the ladder.\nThe key is with the sexton.",
      begins: { kind: "moment", at: Date.UTC(2026, 10, 24, 10), zone: null },
      ends: { kind: "moment", at: Date.UTC(2026, 10, 24, 11, 30), zone: null },
      place: "St Brannoc, the loft",
      organiser: { name: "Perpetua Vane", address: "perpetua.vane@vanehouse.example" },
      attendees: [
        { name: "Ines Varga", address: "ines@ottermoor.example", participation: "accepted" },
        { name: "Quayle, Otto", address: "otto@quayle.example", participation: "declined" },
        { name: "", address: "jory@tamm.example", participation: "needs-action" },
      ],
      attendeeCount: 3,
      repeats: true,
      isCancelled: false,
    });
  });

  it("reads the zone that the file describes, one that it only names, and none", () => {
    const described = calendar([
      "BEGIN:VTIMEZONE",
      "TZID:Moorland Time",
      "BEGIN:STANDARD",
      "DTSTART:19700101T000000",
      "TZOFFSETFROM:+0300",
      "TZOFFSETTO:+0300",
      "END:STANDARD",
      "END:VTIMEZONE",
      ...event("DTSTART;TZID=Moorland Time:20261124T100000"),
    ]);
    expect(at(described)).toEqual(["2026-11-24T07:00:00.000Z", "Moorland Time"]);
    expect(at(calendar(event("DTSTART;TZID=Europe/Berlin:20261124T100000")))).toEqual([
      "2026-11-24T09:00:00.000Z",
      "Europe/Berlin",
    ]);
    expect(at(calendar(event("DTSTART;TZID=Nowhere:20261124T100000")))).toBe("2026-11-24T10:00");
    expect(at(calendar(event("DTSTART:20261124T100000")))).toBe("2026-11-24T10:00");
    expect(at(calendar(event("DTSTART;VALUE=DATE:20261124")))).toBe("2026-11-24");
  });

  it("is read to its end, and a thousand attendees are counted", () => {
    const attendees = Array.from(
      { length: 1_000 },
      (_, index) => `ATTENDEE;CN=Ringer ${index}:mailto:r${index}@tinguild.example`,
    );
    const text = ["BEGIN:VCALENDAR", ...event(...attendees, "SUMMARY:Peal"), "METHOD:CANCEL", "END:VCALENDAR"].join(
      "\r\n",
    );
    expect(readCalendar(text).method).toBe("CANCEL");
    expect(first(text)).toMatchObject({ summary: "Peal", attendeeCount: 1_000, isCancelled: true });
    expect(first(text)?.attendees).toHaveLength(50);
  });

  it.each(["", "BEGIN:VCALENDAR", "no calendar at all", "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:20269999T999999"])(
    "that cannot be read is said to be so or has no event: %j",
    (text) => expect(readCalendar(text).appointments ?? []).toEqual([]),
  );
});
