import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type MemberId, type RecordId, type TrayId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import { type Cover, coveredBy, inCharge, isCovered, type TimeOff, timeOffAt } from "./covering";

const OFFICE = trustedId<TrayId>("office");
const PARTS = trustedId<TrayId>("parts");
const [INES, TOBIAS, COL, MARA] = ["ines", "tobias", "col", "mara"].map((id) => trustedId<MemberId>(id)) as [
  MemberId,
  MemberId,
  MemberId,
  MemberId,
];
const [SORREL, QUAY] = ["sorrel", "quay"].map((id) => trustedId<RecordId>(id)) as [RecordId, RecordId];
const NOW = instant(1_000);

const cover = (memberId: MemberId, recordId: RecordId | null = null, trayId = OFFICE): Cover => ({
  trayId,
  recordId,
  memberId,
});
const away = (memberId: MemberId, ...covers: Cover[]): TimeOff => ({
  memberId,
  from: instant(500),
  until: instant(2_000),
  covers,
});
const charge = (owner: MemberId, recordIds: RecordId[], ...timesOff: TimeOff[]) =>
  inCharge(owner, { trayId: OFFICE, recordIds }, NOW, timesOff);

describe("time off", () => {
  it.each([
    [499, false],
    [500, true],
    [1_999, true],
    [2_000, false],
  ])("at %i is %s", (now, is) => expect(timeOffAt(INES, instant(now), [away(INES)]) !== null).toBe(is));

  it("is the one that ends last, of two at once", () => {
    const longer = { ...away(INES), until: instant(9_000) };
    expect(timeOffAt(INES, NOW, [away(INES), longer])).toBe(longer);
  });
});

describe("who is in charge", () => {
  it.each<[string, MemberId | null, RecordId[], TimeOff[]]>([
    ["the owner who is there", INES, [], [away(TOBIAS, cover(INES))]],
    ["who covers the tray", TOBIAS, [], [away(INES, cover(TOBIAS))]],
    [
      "who covers the record, before who covers the tray",
      COL,
      [SORREL],
      [away(INES, cover(TOBIAS), cover(COL, SORREL))],
    ],
    ["who covers the tray, for another record", TOBIAS, [QUAY], [away(INES, cover(TOBIAS), cover(COL, SORREL))]],
    ["nobody where only another tray is covered", null, [], [away(INES, cover(TOBIAS, null, PARTS))]],
    ["who covers for who covers", COL, [], [away(INES, cover(TOBIAS)), away(TOBIAS, cover(COL))]],
    ["nobody when two cover for each other", null, [], [away(INES, cover(TOBIAS)), away(TOBIAS, cover(INES))]],
    ["nobody without a cover", null, [], [away(INES)]],
  ])("is %s", (_, expected, recordIds, timesOff) => expect(charge(INES, recordIds, ...timesOff)).toBe(expected));
});

describe("what somebody covers", () => {
  it("is nothing while she is away herself", () => {
    expect(coveredBy(TOBIAS, OFFICE, NOW, [away(INES, cover(TOBIAS)), away(TOBIAS)])).toEqual([]);
  });

  const members = fc.constantFrom(INES, TOBIAS, COL, MARA);
  const records = fc.constantFrom(SORREL, QUAY);
  const covers = fc.uniqueArray(
    fc.record({ trayId: fc.constant(OFFICE), recordId: fc.option(records), memberId: members }),
    { selector: ({ recordId }) => recordId, maxLength: 3 },
  );
  const timesOff = fc.uniqueArray(
    fc.record({ memberId: members, from: fc.constant(instant(0)), until: fc.constant(instant(5_000)), covers }),
    { selector: ({ memberId }) => memberId, maxLength: 3 },
  );

  it("are exactly the conversations that she is in charge of and does not own", () =>
    fc.assert(
      fc.property(timesOff, members, members, fc.uniqueArray(records), (off, owner, member, recordIds) => {
        const isHers = inCharge(owner, { trayId: OFFICE, recordIds }, NOW, off) === member && owner !== member;
        expect(isCovered(coveredBy(member, OFFICE, NOW, off), { ownerId: owner, recordIds })).toBe(isHers);
      }),
      { numRuns: 500 },
    ));
});
