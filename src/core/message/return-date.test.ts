import { describe, expect, it } from "vitest";
import { readInstant } from "../kernel/instant";
import { usualHours } from "../worktime/working-hours";
import { returnDateIn } from "./return-date";

const hours = usualHours("Europe/London");
const at = (text: string) => {
  const instant = readInstant(text);
  if (instant === null) throw new Error(text);
  return instant;
};
// A Wednesday.
const written = at("2026-11-25T09:30:00Z");

describe("an automatic reply says when its writer is back", () => {
  it.each<[string, string | null]>([
    ["I am out of the office and back on Monday, 30 November.", "2026-11-30T17:00:00Z"],
    ["I am away from my desk and read mail again tomorrow. Urgent matters: the duty officer.", "2026-11-26T17:00:00Z"],
    ["I am on leave until 4 December 2026 and will answer then.", "2026-12-04T17:00:00Z"],
    ["I will be away from 26 November until 2 December.", "2026-12-02T17:00:00Z"],
    ["Returning on 1 December.", "2026-12-01T17:00:00Z"],
    ["Ich bin bis zum 4. Dezember nicht im Büro.", "2026-12-04T17:00:00Z"],
    ["Ab dem 30. November bin ich wieder da.", "2026-11-30T17:00:00Z"],
    ["Je suis absente jusqu’au 4 décembre.", "2026-12-04T17:00:00Z"],
    ["Ik ben terug op 1 december.", "2026-12-01T17:00:00Z"],
    ["Estoy fuera hasta el 4 de diciembre.", "2026-12-04T17:00:00Z"],
    ["Thank you for your message. We answer within two days.", null],
    ["We were away until 3 November 2026.", null],
    ["I am away until 3 November 2030.", null],
    ["Your ticket of 4 December was noted.", null],
    ["", null],
  ])("%s", (text, back) => {
    expect(returnDateIn(text, written, hours)).toBe(back === null ? null : at(back));
  });
});
