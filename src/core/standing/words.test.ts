import { INES, TOBIAS } from "@tests/support/a-conversation";
import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { DAY, HOUR, type Instant, instant, later, MINUTE, readInstant } from "../kernel/instant";
import { ageInWords } from "../time/age-in-words";
import { dayAndTime, dayHeading, dayInWords, overdueInWords } from "../time/day-words";
import { reasonInWords } from "./reason-in-words";
import type { Reason } from "./standing";

const LONDON = "Europe/London";
const at = (text: string): Instant => readInstant(text) ?? instant(Number.NaN);
// A Tuesday.
const now = at("2026-11-24T10:00:00Z");

describe("days", () => {
  it.each([
    ["2026-11-24T00:10:00Z", "today"],
    ["2026-11-23T23:50:00Z", "yesterday"],
    ["2026-11-25T09:00:00Z", "tomorrow"],
    ["2026-11-20T09:00:00Z", "Fri"],
    ["2026-11-17T09:00:00Z", "17 Nov"],
    ["2025-11-17T09:00:00Z", "17 Nov 2025"],
  ])("%s is %s", (text, words) => expect(inEnglish(dayInWords(at(text), now, LONDON))).toBe(words));

  it("are those of the reader's zone, not of UTC", () => {
    expect(inEnglish(dayInWords(at("2026-11-24T00:10:00Z"), now, "America/New_York"))).toBe("yesterday");
    expect(inEnglish(dayAndTime(at("2026-07-01T09:00:00Z"), at("2026-07-01T10:00:00Z"), LONDON))).toBe("today 10:00");
  });

  it.each([
    ["2026-11-24T09:00:00Z", "Today"],
    ["2026-11-23T09:00:00Z", "Yesterday"],
    ["2026-11-20T09:00:00Z", "Last week"],
    ["2026-11-03T09:00:00Z", "Earlier this month"],
    ["2026-10-03T09:00:00Z", "October"],
    ["2025-10-03T09:00:00Z", "October 2025"],
  ])("%s stands under %s", (text, heading) => expect(inEnglish(dayHeading(at(text), now, LONDON))).toBe(heading));

  it("early this week have a heading of their own", () => {
    expect(inEnglish(dayHeading(at("2026-11-23T09:00:00Z"), at("2026-11-26T09:00:00Z"), LONDON))).toBe(
      "Earlier this week",
    );
  });

  it.each([
    [HOUR, null],
    [-HOUR, "due today"],
    [-DAY, "1 day overdue"],
    [-7 * DAY, "7 days overdue"],
  ])("%d ms from now are %s", (from, words) =>
    expect(inEnglish(overdueInWords(later(now, from), now, LONDON))).toBe(words),
  );
});

it.each([
  [-5, "0 min"],
  [59 * MINUTE, "59 min"],
  [HOUR, "1 h"],
  [DAY, "1 day"],
  [9.5 * DAY, "9 days"],
])("an age of %d ms is %s", (age, words) => expect(inEnglish(ageInWords(age))).toBe(words));

describe("the reason of a standing", () => {
  const reader = { memberId: INES, now, zone: LONDON, nameOf: () => "Tobias" };
  const said = (reason: Reason) =>
    reasonInWords({ kind: "our-move", since: at("2026-11-24T09:14:00Z"), reason }, reader);
  const yesterday = later(now, -DAY);
  it.each<[Reason, string]>([
    [{ kind: "arrived", who: "P. Vane" }, "New from outside since today 09:14: P. Vane wrote."],
    [{ kind: "replied", who: "P. Vane", messageId: "m" as never }, "Since today 09:14: P. Vane wrote."],
    [
      { kind: "bounced", recipients: ["a@x.example" as EmailAddress] },
      "Since today 09:14: our message could not be delivered to a@x.example.",
    ],
    [{ kind: "taken", by: INES, ownerId: INES }, "Since today 09:14: you took it."],
    [{ kind: "taken", by: TOBIAS, ownerId: INES }, "Since today 09:14: Tobias gave it to you."],
    [
      { kind: "asked", by: INES, askedAt: now, until: later(now, DAY) },
      "Since today 09:14: your answer asked for a reply by tomorrow.",
    ],
    [{ kind: "asked", by: TOBIAS, askedAt: null, until: null }, "Since today 09:14: Tobias expects a reply."],
    [
      { kind: "asked", by: INES, askedAt: now, until: yesterday },
      "Since today 09:14: your answer asked for a reply by yesterday, 1 day overdue.",
    ],
    [{ kind: "settled", by: TOBIAS }, "Since today 09:14: Tobias settled it."],
    [{ kind: "settled", by: null }, "Since today 09:14: the tray settled it."],
    [{ kind: "answered", by: INES }, "Since today 09:14: you answered without asking for a reply."],
    [{ kind: "not-sent", detail: "550 no." }, "Since today 09:14: our message could not be sent. 550 no."],
    [
      { kind: "rest-ended", by: INES, restedAt: yesterday },
      "Since today 09:14: its rest is over; you put it to rest yesterday.",
    ],
  ])("%j", (reason, words) => expect(inEnglish(said(reason))).toBe(words));
});
