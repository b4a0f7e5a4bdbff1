import { exchanged, hour } from "@tests/support/exchange";
import { describe, expect, it } from "vitest";
import type { JournalEntry } from "../journal/entry";
import { trustedId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { expiryOf } from "../message/expiry";
import { lapsesAt } from "./lapse";

describe("when a conversation stops to matter", () => {
  const says = (line: string, dates: Readonly<Record<number, Instant>>, entries: readonly JournalEntry[] = []) =>
    lapsesAt(
      exchanged(line).messages.map((message) => ({ ...message, expiresAt: dates[message.version] ?? null })),
      entries,
    );
  const entry = (version: number, effect: JournalEntry["effect"]): JournalEntry => ({
    id: trustedId(`e${version}`),
    version,
    at: hour(version),
    by: null,
    effect,
  });
  it.each([
    ["V", {}, null],
    ["V", { 1: hour(9) }, hour(9)],
    ["V V", { 1: hour(9) }, null],
    ["V V!", { 1: hour(9) }, hour(9)],
    ["V w", { 1: hour(9), 2: hour(20) }, hour(20)],
    ["L", { 1: hour(5) }, hour(5)],
  ] as const)("%s with %j: %s", (line, dates, at) => expect(says(line, dates)).toBe(at));

  it("is what was said last, by a message or by hand, and over once it lapsed", () => {
    const set = entry(2, { kind: "expiry-set", at: hour(30) });
    expect(says("V", { 1: hour(9) }, [set])).toBe(hour(30));
    expect(says("V n V", { 3: hour(12) }, [set])).toBe(hour(12));
    expect(says("V", { 1: hour(9) }, [entry(2, { kind: "lapsed" })])).toBeNull();
    expect(says("V", { 1: hour(9) }, [entry(2, { kind: "expiry-set", at: null })])).toBeNull();
  });

  it.each([
    [[{ name: "expiry-date", value: "soon" }], null],
    [[{ name: "expires", value: "Thu, 1 Jan 1970 00:00:07 +0000" }], 7_000],
    [
      [
        { name: "expires", value: "Thu, 1 Jan 1970 00:00:07 +0000" },
        { name: "expiry-date", value: "Thu, 1 Jan 1970 00:00:09 +0000" },
      ],
      9_000,
    ],
    [[], null],
  ])("is read from %j", (headers, at) => expect(expiryOf(headers)).toBe(at));
});
