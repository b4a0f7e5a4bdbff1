import { type Desk, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Instant, readInstant } from "../../core/kernel/instant";
import { chooseNotificationSettings, listNotifications, notificationSettingsOf, notifyWeeks } from "../index.server";

let tray: TestTray;
let desk: Desk;
beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

const weeksOf = async (who: Desk["lead"]) =>
  (await listNotifications(tray.deps, who))
    .filter(({ event }) => event === "week")
    .map(({ words }) => inEnglish(words));
const itIs = (text: string) => {
  tray.clock.now = readInstant(`${text}:00Z`) as Instant;
};

describe("the week in short", () => {
  it("is told once to those who lead, when the office opens after it", async () => {
    itIs("2026-11-17T09:00");
    const [first, second] = [await desk.arrive({ subject: "First" }), await desk.arrive({ subject: "Second" })];
    await desk.answers(desk.ines, first);
    await desk.does(desk.lead, second, { kind: "settle" });
    await desk.arrive({ subject: "Left" });
    itIs("2026-11-23T07:59");
    expect(await notifyWeeks(tray.deps)).toBe(0);
    itIs("2026-11-23T08:00");
    expect(await notifyWeeks(tray.deps)).toBe(1);
    expect(await notifyWeeks(tray.deps)).toBe(0);
    expect(await weeksOf(desk.lead)).toEqual(["last week 3 came, 1 answered, 2 settled; now no loose ends"]);
    expect(await weeksOf(desk.maraGrant)).toEqual([]);
    itIs("2026-11-30T09:00");
    expect(await notifyWeeks(tray.deps)).toBe(1);
    expect((await weeksOf(desk.lead))[0]).toMatch(/^last week 0 came, 0 answered, 0 settled; now /);
  });

  it("is not told to whoever does not want it", async () => {
    const settings = await notificationSettingsOf(tray.deps, desk.lead);
    const off = { ...settings.events.week, list: false, browser: false };
    await chooseNotificationSettings(tray.deps, desk.lead, { ...settings, events: { ...settings.events, week: off } });
    itIs("2026-12-07T09:00");
    expect(await notifyWeeks(tray.deps)).toBe(0);
  });
});
