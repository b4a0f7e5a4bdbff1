import { exchanged, hour } from "@tests/support/exchange";
import { describe, expect, it } from "vitest";
import { trustedId } from "../kernel/ids";
import { DAY, type Instant, later, readInstant } from "../kernel/instant";
import { usualHours, type WorkingHours } from "../worktime/working-hours";
import { reminderTimes, verdictOn } from "./plan-reminders";
import { type Reminded, reminderText } from "./reminder-text";

const hours = usualHours("Europe/London");
const never: WorkingHours = { ...hours, week: hours.week.map(() => null) };
const at = (text: string): Instant => {
  const read = readInstant(text);
  if (read === null) throw new Error(text);
  return read;
};

describe("when reminders go", () => {
  it.each<[string, string, boolean, readonly string[]]>([
    ["at once while it is open", "2026-11-25T10:00:00Z", false, ["2026-11-25T10:00:00Z"]],
    ["with the next opening in the evening", "2026-11-25T20:00:00Z", false, ["2026-11-26T08:00:00Z"]],
    ["with Monday on a Saturday", "2026-11-28T10:00:00Z", false, ["2026-11-30T08:00:00Z"]],
    [
      "in a series after 3, 7 and 14 working days",
      "2026-11-25T10:00:00Z",
      true,
      ["2026-11-25T10:00:00Z", "2026-11-30T08:00:00Z", "2026-12-04T08:00:00Z", "2026-12-15T08:00:00Z"],
    ],
  ])("%s", (_, now, isSeries, times) => {
    expect(reminderTimes(at(now), hours, isSeries)).toEqual(times.map(at));
  });

  it("is never for an office that never opens", () => {
    expect(reminderTimes(at("2026-11-25T10:00:00Z"), never, true)).toEqual([]);
  });
});

describe("a reminder whose time has come", () => {
  const first = trustedId<Parameters<typeof verdictOn>[0]>("x1");
  // Noon of the third of January 1970, a Saturday, is hour 60; noon of Monday is hour 108.
  const verdict = (line: string, now = 108) => {
    const said = verdictOn(first, exchanged(line), usualHours("UTC"), hour(now));
    return said.kind === "stop" ? said.reason : said.kind;
  };
  it.each([
    ["V w ?V=9", "send"],
    ["V w ?V=9 V", "answered"],
    ["V w ?V=9 -1", "no-longer-awaited"],
    ["V w ?V=9 V#", "no-longer-awaited"],
    ["V w ?V+T=9 T", "send"],
    ["V w ?V=9 settled", "not-waiting"],
    ["V w ?V=9 T", "not-waiting"],
    ["V w ?V=9 90:w", "just-written"],
    ["V w ?V=9 80:w", "send"],
    ["V w ?V=9 V!200", "send"],
  ])("%s: %s", (line, said) => expect(verdict(line)).toBe(said));

  it("waits for the opening, and stops where there is none", () => {
    const facts = exchanged("V w ?V=9");
    expect(verdictOn(first, facts, usualHours("UTC"), hour(60))).toEqual({ kind: "later", at: hour(104) });
    expect(verdictOn(first, facts, never, hour(108))).toEqual({ kind: "stop", reason: "closed" });
  });
});

describe("the text of a reminder", () => {
  const now = at("2026-11-25T10:00:00Z");
  const about: Reminded = {
    name: "Otto Quayle",
    subject: "Re: AW: Blower",
    writer: "Ines Varga",
    askedAt: later(now, -9 * DAY),
    now,
    zone: "Europe/London",
  };
  it.each([
    ["friendly", "en", /^Dear Otto Quayle,\n\nmay I come back to my message of .+ about “Blower”\?/],
    ["firm", "en", /have had no answer yet/],
    ["friendly", "de", /^Guten Tag Otto Quayle,\n\ndarf ich an meine Nachricht vom 16\. November zu „Blower“ erinnern/],
    ["firm", "fr", /le 16 novembre, nous vous avons écrit au sujet de « Blower »/],
  ] as const)("%s, %s", (tone, language, words) => {
    const text = reminderText(about, { tone, language });
    expect(text).toMatch(words);
    expect(text.endsWith("\nInes Varga")).toBe(true);
  });

  it("greets somebody whose name is not known", () => {
    expect(reminderText({ ...about, name: "" }, { tone: "friendly", language: "en" })).toMatch(/^Good day,\n/);
  });
});
