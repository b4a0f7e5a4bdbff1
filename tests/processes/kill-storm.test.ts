import { killStorm } from "@tests/support/kill-storm";
import { testTray } from "@tests/support/test-database";
import { afterAll, expect, it } from "vitest";

const tray = await testTray();
afterAll(() => tray.close());

it("loses nothing, takes nothing twice and sends nothing twice unseen while it is killed again and again", {
  timeout: 240_000,
}, async () => {
  const left = await killStorm(tray, { incoming: 200, outgoing: 40, connections: 8, kills: 3 });
  expect(left.wrongIn).toEqual([]);
  expect(left.wrongOut).toEqual([]);
  expect(left.kills).toBe(3);
});
