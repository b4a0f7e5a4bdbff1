import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DAY, HOUR, type Instant, instant, later, readInstant } from "../kernel/instant";
import { nextUrgency, URGENCIES, urgencyOfRank, urgencyRank } from "../kernel/urgency";
import { usualHours } from "../worktime/working-hours";
import { ageBands, type Band, bandOf, dayBands, dueBands } from "./bands";
import { filterParams, isFiltered, readFilter, toggled } from "./filter";
import { followUpGrouper } from "./follow-up-groups";
import { type Groupable, laneKeysOf } from "./lanes-of-row";
import { inRunOrder, isRunOrder } from "./run-order";
import { isInScope, isScope, scopeName } from "./scope";
import { isDescending, readView, USUAL_VIEW } from "./sheet-view";

// A Wednesday.
const now: Instant = readInstant("2026-11-25T10:00:00Z") ?? instant(0);
const named = (bands: readonly Band[], at: Instant) => bandOf(at, bands)?.name ?? null;

describe("a view", () => {
  it("is the usual one where nothing sensible is stored", () => {
    for (const stored of [null, 3, "x", {}, { order: "colour", columns: "all" }])
      expect(readView(stored)).toEqual(USUAL_VIEW);
  });
  it("keeps what was chosen and mends the rest", () => {
    const columns = [
      { key: "who", width: 9_999 },
      { key: "who", width: 90 },
      { key: "subject", width: 3 },
      { key: "x" },
    ];
    expect(
      readView({ order: "due", reversed: true, grouping: null, columns, density: "roomy", reading: "below" }),
    ).toEqual({
      order: "due",
      reversed: true,
      grouping: null,
      columns: [
        { key: "who", width: 480 },
        { key: "subject", width: null },
      ],
      density: "roomy",
      reading: "below",
    });
  });
  it("has the newest and the most urgent on top, the rest from the least", () => {
    const ways = (["date", "urgency", "due", "person"] as const).map((order) =>
      isDescending({ order, reversed: false }),
    );
    expect(ways).toEqual([true, true, false, false]);
    expect(isDescending({ order: "date", reversed: true })).toBe(false);
  });
});

describe("a filter", () => {
  it("comes back from the query string it was written to", () => {
    const filter = { owner: ["a", "none"], unread: ["yes"] };
    expect(readFilter(filterParams(filter))).toEqual(filter);
    expect(readFilter(new URLSearchParams("page=3&owner=a&owner=a"))).toEqual({ owner: ["a"] });
  });
  it("puts a value in and takes it out again", () => {
    const filter = toggled({}, "owner", "a");
    expect(isFiltered(filter)).toBe(true);
    expect(toggled(filter, "owner", "a")).toEqual({});
    expect(isFiltered({})).toBe(false);
  });
});

describe("bands of time", () => {
  it.each([
    [later(now, -HOUR), "Today"],
    [later(now, -DAY), "Yesterday"],
    [later(now, -2 * DAY), "Earlier this week"],
    [later(now, -5 * DAY), "Last week"],
    [later(now, -15 * DAY), "Earlier this month"],
    [later(now, -40 * DAY), "October"],
    [later(now, -2_000 * DAY), "Earlier"],
  ])("%s is on %s", (at, name) => expect(inEnglish(named(dayBands(now, "UTC"), at))).toBe(name));
  it.each([
    [later(now, -1), "Overdue"],
    [later(now, HOUR), "Today"],
    [later(now, DAY), "Tomorrow"],
    [later(now, 3 * DAY), "Later this week"],
    [later(now, 6 * DAY), "Next week"],
    [later(now, 90 * DAY), "Further out"],
  ])("%s is due %s", (at, name) => expect(inEnglish(named(dueBands(now, "UTC"), at))).toBe(name));
  it("have no gap and no overlap, in any zone at any time", () => {
    const zone = fc.constantFrom("UTC", "Europe/London", "Pacific/Auckland", "America/St_Johns");
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4e12 }), zone, fc.integer({ min: -1e11, max: 1e11 }), (at, where, off) => {
        for (const bands of [dayBands(instant(at), where), dueBands(instant(at), where), ageBands(instant(at))]) {
          const within = bands.filter(
            ({ from, to }) => (from === null || at + off >= from) && (to === null || at + off < to),
          );
          expect(within).toHaveLength(1);
        }
      }),
    );
  });
});

describe("the groups of a conversation", () => {
  const row: Groupable = {
    listedAt: later(now, -DAY),
    dueAt: null,
    ownerId: null,
    categoryIds: ["tu", "wi"],
    recordIds: [],
    whoAddress: "vane@vanehouse.example",
    urgency: "days",
    standing: "waiting",
  };
  it.each([
    ["owner", ["none"]],
    ["category", ["tu", "wi"]],
    ["record", ["none"]],
    ["person", ["vane@vanehouse.example"]],
    ["urgency", ["days"]],
    ["due", ["none"]],
    ["standing", ["waiting"]],
    [null, [""]],
  ] as const)("by %s", (grouping, keys) => expect(laneKeysOf(row, grouping, [])).toEqual(keys));
  it("by day are its band", () => {
    expect(laneKeysOf(row, "day", dayBands(now, "UTC"))).toEqual(["d1"]);
  });
});

describe("urgency", () => {
  it("goes round in four steps", () => {
    const steps = URGENCIES.map(() => null).reduce((all) => [...all, nextUrgency(all.at(-1) ?? "reading")], [
      "reading",
    ] as (typeof URGENCIES)[number][]);
    expect(steps).toEqual(["reading", "no-rush", "days", "today", "reading"]);
    expect(URGENCIES.map((urgency) => urgencyOfRank(urgencyRank(urgency)))).toEqual([...URGENCIES]);
    expect(urgencyOfRank(17)).toBe("no-rush");
  });
});

describe("follow-ups", () => {
  const groupOf = followUpGrouper(now, usualHours("UTC"));
  it.each([
    [-HOUR, "past"],
    [HOUR, "today"],
    [DAY, "next"],
    [2 * DAY, "five"],
    // Five working days after a Wednesday is the Wednesday after.
    [7 * DAY, "five"],
    [8 * DAY, "further"],
  ] as const)("due %d ms from now are %s", (ahead, group) => expect(groupOf(later(now, ahead))).toBe(group));
  it("without a date stand apart", () => expect(groupOf(null)).toBe("undated"));
});

describe("a sort run", () => {
  const run = (id: string, who: string, listedAt: number, newestText = "x") => ({
    id,
    who,
    listedAt,
    newestText,
    messageCount: 1,
    hasAttachment: false,
  });
  const rows = [run("a", "Vane", 1, "long words of a letter"), run("b", "Orne", 3, "two words"), run("c", "Vane", 2)];
  it.each([
    ["newest", "bca"],
    ["oldest", "acb"],
    ["person", "bca"],
    ["quick", "cba"],
  ] as const)("goes %s first", (order, expected) =>
    expect(
      inRunOrder(rows, order)
        .map(({ id }) => id)
        .join(""),
    ).toBe(expected),
  );
  it("counts earlier messages and attachments as work", () => {
    const answered = { ...run("d", "Vane", 9), messageCount: 4 };
    expect(inRunOrder([answered, { ...run("e", "Vane", 1), hasAttachment: true }], "quick")[0]?.id).toBe("e");
    expect([isRunOrder("quick"), isRunOrder("slow")]).toEqual([true, false]);
  });
});

describe("a scope", () => {
  it("is a standing, or all that is open", () => {
    expect([isScope("open"), isScope("bin"), isScope("lost")]).toEqual([true, true, false]);
    expect(isInScope("resting", "open")).toBe(true);
    expect(isInScope("settled", "open")).toBe(false);
    expect(isInScope("settled", "settled")).toBe(true);
    expect(inEnglish([scopeName("open"), scopeName("waiting")])).toEqual(["All that is open", "Waiting for reply"]);
  });
});
