import { describe, expect, it } from "vitest";
import { type MemberId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import { type Candidate, suggestAssignees } from "./assignee-suggestions";
import { type DeskPart, loadOf, openOf, turnTaker } from "./load";

const INES = trustedId<MemberId>("ines");
const TOBIAS = trustedId<MemberId>("tobias");
const COL = trustedId<MemberId>("col");
const part = (given: Partial<DeskPart>): DeskPart => ({
  ownerId: INES,
  urgency: "no-rush",
  age: "fresh",
  waits: false,
  count: 1,
  ...given,
});

describe("the load of a colleague", () => {
  it.each<[string, Partial<DeskPart>, number]>([
    ["an ordinary conversation is one", {}, 1],
    ["four are four", { count: 4 }, 4],
    ["one for today is three", { urgency: "today" }, 3],
    ["something to read is half", { urgency: "reading" }, 0.5],
    ["an old one is half as much again", { age: "old" }, 1.5],
    ["one where others have to act is a fifth", { waits: true }, 0.2],
    ["those of others are none", { ownerId: TOBIAS }, 0],
  ])("%s", (_, given, load) => expect(loadOf(INES, [part(given)])).toBeCloseTo(load));

  it("counts what is open by its number", () => {
    expect(openOf(INES, [part({ count: 3, waits: true }), part({}), part({ ownerId: TOBIAS })])).toBe(4);
  });
});

describe("taking turns", () => {
  const turns = (loads: [MemberId, number][], count: number) => {
    const next = turnTaker(new Map(loads));
    return Array.from({ length: count }, () => next());
  };
  it("goes to whoever has least, and counts what it gave", () => {
    expect(
      turns(
        [
          [INES, 2],
          [TOBIAS, 0],
          [COL, 1.5],
        ],
        5,
      ),
    ).toEqual([TOBIAS, TOBIAS, COL, INES, TOBIAS]);
  });
  it("is the first named's of equals", () =>
    expect(
      turns(
        [
          [COL, 1],
          [INES, 1],
        ],
        2,
      ),
    ).toEqual([COL, INES]));
  it("is nobody's in a group of nobody", () => expect(turns([], 1)).toEqual([null]));
});

const NONE = { hers: 0, all: 0 };
const candidate = (memberId: MemberId, given: Partial<Candidate> = {}): Candidate => ({
  memberId,
  withPerson: NONE,
  withRecord: NONE,
  withCategory: NONE,
  load: 3,
  open: 3,
  awayUntil: null,
  atWorkFrom: null,
  ...given,
});
const order = (...candidates: Candidate[]) => suggestAssignees(candidates).map(({ memberId }) => memberId);

describe("who could take it", () => {
  it("is who dealt with this person before", () => {
    expect(order(candidate(INES), candidate(TOBIAS, { withPerson: { hers: 7, all: 9 } }))).toEqual([TOBIAS, INES]);
  });
  it("is who did nine of ten before who did the only one", () => {
    const once = candidate(INES, { withPerson: { hers: 1, all: 1 } });
    expect(order(once, candidate(TOBIAS, { withPerson: { hers: 9, all: 10 } }))).toEqual([TOBIAS, INES]);
  });
  it("is who has less to do, where both know as much", () => {
    expect(order(candidate(INES, { load: 12 }), candidate(TOBIAS, { load: 2 }))).toEqual([TOBIAS, INES]);
  });
  it("is who is at work, where all else is equal", () => {
    expect(order(candidate(INES, { atWorkFrom: instant(9) }), candidate(TOBIAS))).toEqual([TOBIAS, INES]);
  });
  it("is last who is away, whatever she knows", () => {
    const away = candidate(INES, { awayUntil: instant(9), withPerson: { hers: 50, all: 50 }, load: 0 });
    expect(order(away, candidate(TOBIAS, { load: 90 }), candidate(COL))).toEqual([COL, TOBIAS, INES]);
  });
  it("marks who has least of those who are there", () => {
    const away = candidate(INES, { awayUntil: instant(9), load: 0 });
    const marked = suggestAssignees([away, candidate(TOBIAS, { load: 4 }), candidate(COL, { load: 1 })]);
    expect(marked.filter(({ hasLeast }) => hasLeast).map(({ memberId }) => memberId)).toEqual([COL]);
  });
});
