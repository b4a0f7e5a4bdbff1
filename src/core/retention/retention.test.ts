import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type PolicyId, type RecordId, trustedId } from "../kernel/ids";
import { DAY, type Instant, instant, later, readInstant } from "../kernel/instant";
import { afterPeriod, periodInWords, readPeriod } from "./period";
import { checkedPolicy, policyInWords, type RetentionPolicy } from "./policy";
import { type Applied, isDue, type RetainedRecord, termsOf } from "./term";
import { termInWords } from "./term-in-words";

const at = (text: string) => readInstant(text) ?? instant(Number.NaN);
const CLOSED = at("2026-01-31T10:00:00Z");

const policy = (given: Partial<RetentionPolicy> = {}): RetentionPolicy => ({
  id: trustedId<PolicyId>("p"),
  name: "Project files",
  period: "P10Y",
  countsFrom: "closing",
  endsIn: "review",
  ...given,
});
const applied = (given: Partial<RetentionPolicy> = {}, from: Applied["from"] = { kind: "type" }): Applied => ({
  policy: policy(given),
  from,
  lastMessageAt: null,
});
const record = (id: string, given: Partial<RetainedRecord> = {}): RetainedRecord => ({
  id: trustedId<RecordId>(id),
  code: id.toUpperCase(),
  parentId: null,
  createdAt: instant(0),
  closedAt: CLOSED,
  applied: [applied()],
  keptUntil: null,
  holds: [],
  ...given,
});
const idOf = (id: string) => trustedId<RecordId>(id);

describe("a period of keeping", () => {
  it.each([
    ["P10Y", "10 years"],
    ["p1y6m", "1 year and 6 months"],
    [" P8W ", "8 weeks"],
    ["P1Y2M3W4D", "1 year, 2 months, 3 weeks and 4 days"],
  ])("is read from %s", (text, words) => {
    const read = readPeriod(text);
    expect(inEnglish(read.ok ? periodInWords(read.value) : read.error)).toBe(words);
  });

  it.each(["", "P", "10 years", "PT5H", "P0Y", "P1Y1Y", "P9999Y", "P-1Y", "P1.5Y"])("is not read from %j", (text) =>
    expect(readPeriod(text).ok).toBe(false),
  );

  it("goes by the calendar, at the same hour of the day", () => {
    const endOf = (text: string, from = CLOSED, zone = "UTC") => {
      const read = readPeriod(text);
      return read.ok ? afterPeriod(from, read.value, zone) : null;
    };
    expect(endOf("P1M")).toBe(at("2026-02-28T10:00:00Z"));
    expect(endOf("P4Y", at("2024-02-29T10:00:00Z"))).toBe(at("2028-02-29T10:00:00Z"));
    expect(endOf("P1Y", at("2024-02-29T10:00:00Z"))).toBe(at("2025-02-28T10:00:00Z"));
    // The clocks change between.
    expect(endOf("P3M", at("2026-01-31T10:00:00Z"), "Europe/Vienna")).toBe(at("2026-04-30T09:00:00Z"));
  });
});

describe("a policy", () => {
  it("says what is wrong with it beside each field", () => {
    expect(inEnglish(checkedPolicy(policy({ name: " ", period: "ten" })))).toMatchObject({
      error: { name: /name/ as never, period: /P10Y/ as never },
    });
    expect(inEnglish(checkedPolicy(policy({ name: " A ", period: "p1y" })))).toMatchObject({
      value: { name: "A", period: "P1Y" },
    });
    expect(inEnglish(policyInWords(policy({ countsFrom: "last-message" })))).toBe("10 years after its newest message");
  });
});

describe("the term of a record", () => {
  const termOf = (records: readonly RetainedRecord[], id: string) => termsOf(records, "UTC").get(idOf(id));

  it("is the longest of those that apply, and says which and why", () => {
    const longer = applied({ name: "Guarantees", period: "P30Y" }, { kind: "category", name: "Guarantee" });
    const term = termOf([record("a", { applied: [applied(), longer, applied({ period: "P1D" })] })], "a");
    expect(term).toMatchObject({ kind: "until", at: at("2056-01-31T10:00:00Z"), why: longer });
    expect(inEnglish(term && termInWords(term, () => "a day"))).toEqual({
      until: "until a day",
      why: "30 years after its closing by the policy of the category Guarantee, Guarantees",
    });
  });

  it("begins with its closing, or with the newest message of what the policy is for", () => {
    expect(termOf([record("a", { closedAt: null })], "a")).toMatchObject({ kind: "not-closed" });
    const byMessage = {
      ...applied({ period: "P1Y", countsFrom: "last-message" }),
      lastMessageAt: at("2026-05-01T00:00:00Z"),
    };
    expect(termOf([record("a", { closedAt: null, applied: [byMessage] })], "a")).toMatchObject({
      at: at("2027-05-01T00:00:00Z"),
    });
    const nothing = { ...byMessage, lastMessageAt: null };
    expect(termOf([record("a", { applied: [nothing] })], "a")).toMatchObject({ at: at("1971-01-01T00:00:00Z") });
  });

  it("ends in a look where two end together, and where somebody had it kept", () => {
    const both = [applied({ endsIn: "disposal" }), applied({ endsIn: "review" })];
    for (const some of [both, both.toReversed()])
      expect(termOf([record("a", { applied: some })], "a")).toMatchObject({ endsIn: "review" });
    const kept = record("a", { applied: [applied({ endsIn: "disposal" })], keptUntil: at("2040-01-01T00:00:00Z") });
    expect(termOf([kept], "a")).toMatchObject({ at: at("2040-01-01T00:00:00Z"), endsIn: "review", why: null });
  });

  it("is stopped by a hold, also on what it stands under", () => {
    const all = [record("a", { holds: ["Lawsuit"] }), record("b", { parentId: idOf("a") })];
    expect(termOf(all, "b")).toEqual({ kind: "held", reasons: ["Lawsuit"] });
    expect(termOf([record("a"), record("b", { parentId: idOf("a"), holds: ["x"] })], "a")).toMatchObject({
      kind: "for-good",
      under: "B",
    });
  });

  it("is as long as that of what stands under it", () => {
    const late = record("b", { parentId: idOf("a"), closedAt: at("2030-01-31T10:00:00Z") });
    expect(termOf([record("a"), late], "a")).toMatchObject({ at: at("2040-01-31T10:00:00Z"), under: "B" });
    expect(termOf([record("a"), { ...late, closedAt: null }], "a")).toMatchObject({ kind: "not-closed", under: "B" });
  });
});

// The slow way: each record by itself, each question asked anew, from the definition.
function slowlyDue(records: readonly RetainedRecord[], one: RetainedRecord, now: Instant): boolean {
  const above = (record: RetainedRecord): RetainedRecord[] => {
    const parent = records.find(({ id }) => id === record.parentId);
    return parent === undefined ? [record] : [record, ...above(parent)];
  };
  if (above(one).some(({ holds }) => holds.length > 0)) return false;
  if (one.applied.length === 0) return false;
  const isOver = one.applied.every(({ policy: { period, countsFrom }, lastMessageAt }) => {
    const from = countsFrom === "closing" ? one.closedAt : (lastMessageAt ?? one.createdAt);
    // All generated periods are in days.
    return from !== null && from + Number(period.slice(1, -1)) * DAY <= now;
  });
  const isKept = one.keptUntil !== null && one.keptUntil > now;
  const below = records.filter(({ parentId }) => parentId === one.id);
  return isOver && !isKept && below.every((child) => slowlyDue(records, child, now));
}

it("what is due is what a slow count by the definition says, on any register", () => {
  const NOW = later(instant(0), 1_000 * DAY);
  const day = fc.integer({ min: 0, max: 1_200 }).map((days) => later(instant(0), days * DAY));
  const anApplied = fc.record({
    policy: fc
      .record({
        period: fc.integer({ min: 1, max: 900 }).map((days) => `P${days}D`),
        countsFrom: fc.constantFrom("closing" as const, "last-message" as const),
        endsIn: fc.constantFrom("review" as const, "disposal" as const),
      })
      .map((given) => policy(given)),
    from: fc.constant({ kind: "type" as const }),
    lastMessageAt: fc.option(day),
  });
  const aRecord = fc.record({
    parent: fc.integer({ min: 0, max: 30 }),
    createdAt: day,
    closedAt: fc.option(day, { freq: 4 }),
    applied: fc.array(anApplied, { maxLength: 3 }),
    keptUntil: fc.option(day, { freq: 1 }),
    holds: fc.constantFrom<readonly string[]>([], [], [], [], [], ["Lawsuit"]),
  });
  let due = 0;
  fc.assert(
    fc.property(fc.array(aRecord, { minLength: 1, maxLength: 14 }), (drawn) => {
      const records = drawn.map(({ parent, ...given }, at) =>
        // Under one before it, or under none: a tree.
        record(`r${at}`, { ...given, parentId: parent < at ? idOf(`r${parent}`) : null }),
      );
      const terms = termsOf(records, "UTC");
      for (const one of records) {
        const term = terms.get(one.id);
        const is = term !== undefined && isDue(term, NOW);
        expect(is).toBe(slowlyDue(records, one, NOW));
        if (is) due += 1;
      }
    }),
    { numRuns: 400 },
  );
  expect(due).toBeGreaterThan(100);
});
