import { describe, expect, it } from "vitest";
import { type Instant, instant } from "../kernel/instant";
import { BACKLOG_AGES, type BacklogGroup, backlogDay, backlogProposals, isBacklogAge } from "./backlog";

const at = (text: string): Instant => instant(Date.parse(text));
const DAY = "2026-08-27";

const group = (part: Partial<BacklogGroup>): BacklogGroup => ({
  kind: "person",
  key: "vane@vanehouse.example",
  name: "Perpetua Vane",
  count: 5,
  unanswered: 0,
  oldestAt: at("2026-03-01T10:00Z"),
  newestAt: at("2026-08-01T10:00Z"),
  lastWroteAt: null,
  samples: [],
  ...part,
});

describe("the day before which mail is older", () => {
  const now = at("2026-11-26T00:30:00Z");
  it.each([
    ["month", "2026-10-27"],
    ["quarter", "2026-08-27"],
    ["half-year", "2026-05-28"],
    ["year", "2025-11-26"],
  ] as const)("than %s is %s", (age, day) => expect(backlogDay(age, now)).toBe(day));
  it("is of an age that there is", () => {
    expect(BACKLOG_AGES.every(isBacklogAge)).toBe(true);
    expect(isBacklogAge("decade")).toBe(false);
  });
});

describe("proposals for older mail", () => {
  const reasonOf = (part: Partial<BacklogGroup>) => backlogProposals([group(part)], DAY)[0]?.reason;

  it.each([
    ["mail of a list", { kind: "list", key: "rolling.tinguild.example" }, "list"],
    ["nobody who asks", { unanswered: 0 }, "nobody-asks"],
    ["one who wrote since", { unanswered: 2, lastWroteAt: at("2026-08-27T00:00:00Z") }, "wrote-since"],
    ["one who did not", { unanswered: 2, lastWroteAt: at("2026-08-26T23:59:59Z") }, "unanswered"],
    ["one of whom that is not known", { unanswered: 1 }, "unanswered"],
    ["whatever is old", { kind: "age", key: DAY, unanswered: 3 }, "old"],
  ] as const)("say why: %s", (_, part, reason) => expect(reasonOf(part)).toBe(reason));

  it("are lists that filter to exactly what they count", () => {
    const filters = backlogProposals(
      [
        group({ kind: "list", key: "rolling.tinguild.example" }),
        group({}),
        group({ kind: "age", key: "2026-05-28", name: "" }),
      ],
      DAY,
    ).map(({ filter }) => filter);
    expect(filters).toEqual([
      { list: ["rolling.tinguild.example"], before: [DAY] },
      { person: ["vane@vanehouse.example"], before: [DAY] },
      { before: ["2026-05-28"] },
    ]);
  });

  it("begin with the safest, and with the greatest among equals", () => {
    const found = backlogProposals(
      [
        group({ kind: "age", key: DAY, count: 90 }),
        group({ key: "c@x.example", count: 7, unanswered: 7 }),
        group({ key: "b@x.example", count: 3 }),
        group({ key: "a@x.example", count: 3 }),
        group({ key: "d@x.example", count: 9 }),
        group({ kind: "list", key: "l.example", count: 2 }),
      ],
      DAY,
    );
    expect(found.map(({ key }) => key)).toEqual([
      "l.example",
      "d@x.example",
      "a@x.example",
      "b@x.example",
      "c@x.example",
      DAY,
    ]);
  });

  it("leave single ones to where they stand, and know no day that is none", () => {
    expect(backlogProposals([group({ count: 1 })], DAY)).toEqual([]);
    expect(backlogProposals([group({})], "2026-02-30")).toEqual([]);
  });
});
