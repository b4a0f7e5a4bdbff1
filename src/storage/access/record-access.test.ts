import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { type TestTray, testTray } from "@tests/support/test-database";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type GroupId, type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import { readCodePattern } from "../../core/records/code-pattern";
import type { Access } from "../../core/records/register-entry";
import { editGroup, getTypes } from "../../operations/index.server";
import { refreshViewers } from "../access/index";
import { inTransaction } from "../base/index";
import { nextCode, type RegisterRecord, recordsLike, saveRecords } from "../records/index";

let tray: TestTray;
let desk: Desk;
let typeId: RegisterRecord["typeId"];
let members: readonly MemberId[];
let groups: { readonly id: GroupId; readonly memberIds: readonly MemberId[] }[];

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  typeId = (await getTypes(tray.deps))[0]?.id ?? trustedId("");
  members = [desk.ines.id, desk.tobias.id, desk.mara.id];
  groups = [];
  for (const memberIds of [members.slice(0, 2), members.slice(2)]) {
    const id = done(await editGroup(tray.deps, desk.lead, { id: null, name: `Group ${groups.length}`, memberIds }));
    groups.push({ id, memberIds });
  }
});
afterAll(() => tray.close());

type Drawn = { readonly parent: number | null; readonly access: { members: number[]; groups: number[] } | null };

const drawn = fc.array(
  fc.record({
    parent: fc.option(fc.nat(20)),
    access: fc.option(
      fc.record({
        members: fc.uniqueArray(fc.nat(2), { maxLength: 3 }),
        groups: fc.uniqueArray(fc.nat(1), { maxLength: 2 }),
      }),
    ),
  }),
  { minLength: 1, maxLength: 12 },
);

const accessOf = (access: NonNullable<Drawn["access"]>): Access => ({
  memberIds: access.members.map((at) => members[at] ?? trustedId("")),
  groupIds: access.groups.map((at) => groups[at]?.id ?? trustedId("")),
});

// Slow and plain: up the tree, every list that is met has to name her.
function mayKnow(all: readonly Drawn[], at: number, member: MemberId): boolean {
  const record = all[at];
  if (record === undefined) return true;
  if (record.access !== null) {
    const { memberIds, groupIds } = accessOf(record.access);
    const inGroup = groups.some(({ id, memberIds: theirs }) => groupIds.includes(id) && theirs.includes(member));
    if (!memberIds.includes(member) && !inGroup) return false;
  }
  return record.parent === null || mayKnow(all, record.parent, member);
}

describe("who may know of a record", () => {
  it("is whoever every list on the way up names, whatever the tree", async () => {
    await fc.assert(
      fc.asyncProperty(drawn, async (given) => {
        await tray.ask("delete from record");
        // Each stands under one before it, so that nothing comes round.
        const all = given.map((one, at) => ({
          ...one,
          parent: one.parent === null || at === 0 ? null : one.parent % at,
        }));
        const ids = all.map(() => trustedId<RecordId>(tray.deps.newId()));
        const records = all.map((one, at): RegisterRecord => {
          const parentId = one.parent === null ? null : (ids[one.parent] ?? null);
          return {
            id: ids[at] ?? trustedId(""),
            code: `C-${at}`,
            typeId,
            title: `Record ${at}`,
            parentId,
            responsibleId: null,
            note: "",
            addresses: [],
            viewers: null,
            mergedInto: null,
            version: 0,
            access: one.access === null ? null : accessOf(one.access),
            createdAt: tray.clock.now,
            closedAt: null,
          };
        });
        await inTransaction(tray.deps.db, async (trx) => {
          await saveRecords(trx, records);
          await refreshViewers(trx);
        });
        for (const memberId of members) {
          const seen = (await recordsLike(tray.deps.db, { memberId }, "", 100)).map(({ id }) => id);
          const wanted = ids.filter((_, at) => mayKnow(all, at, memberId));
          expect(seen.toSorted()).toEqual(wanted.toSorted());
        }
      }),
      { numRuns: 60 },
    );
  });

  it("is no question for the application itself", async () => {
    const all = await tray.ask("select count(*)::int as count from record");
    expect(await recordsLike(tray.deps.db, null, "", 100)).toHaveLength(all[0].count);
  });
});

describe("the next code", () => {
  const pattern = readCodePattern("Q-{yy}-{nn}");
  const next = (keep: boolean) =>
    inTransaction(tray.deps.db, async (trx) => {
      if (!pattern.ok) throw new Error(inEnglish(pattern.error));
      const code = await nextCode(trx, typeId, pattern.value, "2026-11-24");
      if (!keep) throw new Error(`rolled back ${code}`);
      return code;
    });

  it("is given again when what it was given to came to nothing", async () => {
    expect(await next(true)).toBe("Q-26-01");
    await expect(next(false)).rejects.toThrow("rolled back Q-26-02");
    expect(await next(true)).toBe("Q-26-02");
    expect(await next(true)).toBe("Q-26-03");
  });
});
