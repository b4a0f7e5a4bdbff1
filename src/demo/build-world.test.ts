import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { FLOW } from "../core/standing/standing";
import { examine, getCategoriesInCare, listMembers, moreOfList, register, traysOf } from "../operations/index.server";
import { buildWorld } from "./build-world";

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray();
  await buildWorld(tray.deps);
});
afterAll(() => tray.close());

const NEWEST_FIRST = { order: "date", reversed: false, grouping: null } as const;

async function toldIn(deps: TestTray["deps"]) {
  const [member] = await listMembers(deps);
  if (member === undefined) throw new Error("nobody works here");
  const grants = await traysOf(deps, member);
  const rows = await Promise.all(
    grants.flatMap((grant) =>
      [...FLOW, "bin" as const].map(
        async (standing) =>
          [
            grant.tray.slug,
            standing,
            await moreOfList(
              deps,
              grant,
              member,
              { scope: standing, filter: {}, view: NEWEST_FIRST },
              { lane: "", after: null, limit: 500 },
            ),
          ] as const,
      ),
    ),
  );
  return { grants, rows };
}

describe("the made-up world", () => {
  it("fills every standing of the office, from at least 80 conversations in two trays", async () => {
    const { rows } = await toldIn(tray.deps);
    const counts = rows.map(([slug, standing, list]) => [`${slug} ${standing}`, list.length] as const);
    expect(counts.filter(([name, count]) => name.startsWith("office") && count === 0)).toEqual([]);
    expect(new Set(rows.map(([slug]) => slug)).size).toBe(2);
    expect(counts.reduce((sum, [, count]) => sum + count, 0)).toBeGreaterThanOrEqual(80);
  });

  it("has six colleagues, seventeen records and a retired one among its categories, all addresses made up", async () => {
    const { grants, rows } = await toldIn(tray.deps);
    const [grant] = grants;
    if (grant === undefined) throw new Error("no tray");
    expect([
      (await listMembers(tray.deps)).length,
      (await register(tray.deps, grant, "", true)).total,
      (await getCategoriesInCare(tray.deps, grant)).categories.length,
    ]).toEqual([6, 17, 21]);
    expect(rows.flatMap(([, , list]) => list).length).toBeGreaterThan(0);
  });

  it("spans three months", async () => {
    const { rows } = await toldIn(tray.deps);
    const oldest = Math.min(...rows.flatMap(([, , list]) => list.map((row) => row.lastMessageAt)));
    expect((tray.clock.now - oldest) / 86_400_000).toBeGreaterThan(80);
  });

  it("is as healthy as if people had made it", async () => {
    expect(await examine(tray.deps)).toMatchObject({ healthy: true, differences: [] });
  });

  it("is the same each time", async () => {
    const other = await testTray();
    await buildWorld(other.deps);
    const plain = async (deps: TestTray["deps"]) => (await toldIn(deps)).rows;
    expect(await plain(other.deps)).toEqual(await plain(tray.deps));
    await other.close();
  });
});
