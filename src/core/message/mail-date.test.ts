import { describe, expect, it } from "vitest";
import { mailDate } from "./mail-date";

const MORNING = Date.UTC(2026, 10, 24, 8, 30);

describe("a date field", () => {
  it.each([
    "Tue, 24 Nov 2026 08:30:00 +0000",
    "Tue, 24 Nov 2026 08:30:00 -0000",
    "Tue, 24 Nov 2026 09:30:00 +0100 (CET)",
    "Tue, 24 Nov 2026 09:30:00 (in (the) morning) +0100",
    "Tue, 24 Nov 2026 09:30:00 +01:00",
    "Tue, 24 Nov 2026 09:30:00 GMT+1",
    "Tue, 24 Nov 2026 09:30:00 CET",
    "Tue, 24 Nov 2026 10:30:00 CEST",
    "Tue, 24 Nov 2026 09:30:00 BST",
    "Tue, 24 Nov 2026 17:30:00 JST",
    "Tue, 24 Nov 2026 14:00:00 IST",
    "Tue, 24 Nov 2026 03:30:00 EST",
    "Tue, 24 Nov 2026 3:30 AM EST",
    "Tue, 24 Nov 2026 08:30:00 XYZ",
    "Tue, 24 Nov 2026 08:30:00",
    "24 Nov 2026 08:30 +0000",
    "Tue, 24 Nov 26 08:30:00 +0000",
    "Tue, 24 Nov 126 08:30:00 +0000",
    "Tue, 24-Nov-2026 08:30:00 UTC",
    "Tue, 24 Nov 2026 08.30.00 +0000",
    "Di., 24. November 2026 09:30:00 +0100",
    "Tue Nov 24 08:30:00 2026",
    "Tue Nov 24 09:30:00 CET 2026",
    "Tue Nov 24 09:30:00 2026 +0100",
    "2026-11-24T08:30:00Z",
    "2026-11-24 09:30:00 +0100",
    "2026-11-24T09:30:00+01:00",
  ])("%s is that morning", (field) => expect(mailDate(field)).toBe(MORNING));

  it.each([
    "",
    "yesterday",
    "Tue, 24 Foo 2026 08:30:00 +0000",
    "Tue, 44 Nov 2026 08:30:00 +0000",
    "Tue, 24 Nov 2026 44:30:00 +0000",
    "Tue, 24 Nov 1926 08:30:00 +0000",
    "((((",
    "9".repeat(100_000),
  ])("%.40s is none", (field) => expect(mailDate(field)).toBeNull());

  it("of two digits is of this century or the last, and a leap second is one", () => {
    expect(mailDate("Mon, 3 Jan 94 10:00:00 GMT")).toBe(Date.UTC(1994, 0, 3, 10));
    expect(mailDate("Sat, 31 Dec 2016 23:59:60 GMT")).toBe(Date.UTC(2017, 0, 1));
  });
});
