import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { passes, testTray } from "@tests/support/test-database";
import { beforeEach, describe, expect, it } from "vitest";
import { type ExpectationId, type FollowUpId, trustedId } from "../../core/kernel/ids";
import { HOUR, later } from "../../core/kernel/instant";
import { readNotificationSettings } from "../../core/notifications/notification-settings";
import {
  bellOf,
  chooseNotificationSettings,
  listNotifications,
  notificationSettingsOf,
  notifyDigests,
  notifyOfOverdue,
  openConversation,
  readNotifications,
  setUpCategories,
  type TrayGrant,
  unwatch,
  watch,
  watchedBy,
} from "../index.server";

let desk: Desk;
beforeEach(async () => {
  desk = await setUpDesk(await testTray());
  return () => desk.tray.close();
});

const told = async (who: TrayGrant) => (await listNotifications(desk.tray.deps, who)).map(({ event }) => event);
const fresh = () => passes(desk.tray, 1);

describe("watching", () => {
  it("tells of a person, of a domain, of words and of what is under a category, each message once", async () => {
    const { deps } = desk.tray;
    const [tuning, round] = await setUpCategories(deps, [
      { code: "TU", name: "Tuning", ink: "moss", parentCode: null },
      { code: "TR", name: "Round", ink: "olive", parentCode: "TU" },
    ]);
    done(await watch(deps, desk.grant, "person", "Otto@Quayle.example"));
    done(await watch(deps, desk.grant, "words", "blower hum"));
    done(await watch(deps, desk.tobiasGrant, "person", "@quayle.example"));
    done(await watch(deps, desk.maraGrant, "category", tuning?.id ?? ""));
    fresh();
    const id = await desk.arrive({ from: "otto@quayle.example", subject: "The blower and its hum" });
    expect(await told(desk.grant)).toEqual(["person"]);
    expect(await told(desk.tobiasGrant)).toEqual(["person"]);
    await desk.does(desk.lead, id, { kind: "categorise", categoryId: round?.id ?? trustedId(""), give: true });
    await desk.arrive({ into: id, from: "vane@vanehouse.example", subject: "The blower and its hum" });
    expect(await told(desk.maraGrant)).toEqual(["category"]);
    expect(await told(desk.grant)).toEqual(["words", "person"]);
  });

  it("is refused where there is nothing to watch, and ends", async () => {
    const { deps } = desk.tray;
    const tries = [
      await watch(deps, desk.grant, "person", "nobody"),
      await watch(deps, desk.grant, "category", "01900000-0000-7000-8000-000000000000"),
      await watch(deps, desk.grant, "words", "pipes"),
      await watch(deps, desk.grant, "words", "pipes"),
    ];
    expect(tries.map(refusal)).toEqual(["no-address", "no-such", "done", "watched-already"]);
    const [pipes] = await watchedBy(deps, desk.grant);
    expect(await unwatch(deps, desk.tobiasGrant, pipes?.id ?? trustedId(""))).toBe(false);
    expect(await unwatch(deps, desk.grant, pipes?.id ?? trustedId(""))).toBe(true);
    fresh();
    await desk.arrive({ subject: "pipes" });
    expect(await told(desk.grant)).toEqual([]);
  });
});

describe("what is overdue", () => {
  it("is told once for each day it was due, to whose it is", async () => {
    const id = await desk.arrive();
    const until = later(desk.tray.clock.now, HOUR);
    const expectation = (day: typeof until, name: string) => ({
      kind: "expect" as const,
      until: day,
      expectationId: trustedId<ExpectationId>(name),
    });
    const ids = [desk.tray.deps.newId(), desk.tray.deps.newId(), desk.tray.deps.newId()];
    const followUp = { followUpId: trustedId<FollowUpId>(ids[0] ?? ""), dueAt: until, text: "call the sexton" };
    await desk.does(desk.lead, id, { kind: "assign", ownerId: desk.tobias.id }, expectation(until, ids[1] ?? ""), {
      kind: "follow-up",
      forMember: desk.mara.id,
      ...followUp,
    });
    expect(await notifyOfOverdue(desk.tray.deps)).toBe(0);
    passes(desk.tray, 70);
    expect([await notifyOfOverdue(desk.tray.deps), await notifyOfOverdue(desk.tray.deps)]).toEqual([2, 0]);
    expect(await told(desk.tobiasGrant)).toEqual(["overdue", "assigned"]);
    expect((await listNotifications(desk.tray.deps, desk.maraGrant))[0]).toMatchObject({
      event: "overdue",
      words: "call the sexton",
    });
    await desk.does(desk.lead, id, expectation(later(desk.tray.clock.now, HOUR), ids[2] ?? ""));
    passes(desk.tray, 70);
    expect(await notifyOfOverdue(desk.tray.deps)).toBe(1);
  });

  it("is not told of what somebody answered, nor of what was due long ago", async () => {
    const id = await desk.arrive();
    const until = later(desk.tray.clock.now, HOUR);
    const expectationId = trustedId<ExpectationId>(desk.tray.deps.newId());
    await desk.does(
      desk.lead,
      id,
      { kind: "assign", ownerId: desk.tobias.id },
      { kind: "expect", until, expectationId },
    );
    passes(desk.tray, 5 * 24 * 60);
    expect(await notifyOfOverdue(desk.tray.deps)).toBe(0);
  });
});

describe("the digest", () => {
  it("comes once a day after its time, to who wants it, with what is hers and what is nobody's", async () => {
    const { deps } = desk.tray;
    await chooseNotificationSettings(deps, desk.tobiasGrant, readNotificationSettings({ digestAt: 10 * 60 }));
    const id = await desk.arrive();
    await desk.does(desk.lead, id, { kind: "assign", ownerId: desk.tobias.id });
    await desk.arrive();
    expect(await notifyDigests(deps)).toBe(0);
    passes(desk.tray, 60);
    expect([await notifyDigests(deps), await notifyDigests(deps)]).toEqual([1, 0]);
    const [digest] = await listNotifications(deps, desk.tobiasGrant);
    expect([digest?.event, inEnglish(digest?.words)]).toEqual([
      "digest",
      "1 to do, 0 replies overdue, 0 follow-ups due, 1 with nobody",
    ]);
    passes(desk.tray, 24 * 60);
    expect(await notifyDigests(deps)).toBe(1);
  });
});

describe("the bell", () => {
  const bell = async () =>
    bellOf(
      desk.tray.deps,
      desk.tobiasGrant,
      desk.tobias,
      await notificationSettingsOf(desk.tray.deps, desk.tobiasGrant),
    );
  it("counts what is unread of what is listed, and is read by opening the conversation or by hand", async () => {
    const { deps } = desk.tray;
    const [first, second] = [await desk.arrive(), await desk.arrive()];
    await desk.does(desk.lead, first, { kind: "assign", ownerId: desk.tobias.id });
    await desk.does(desk.lead, second, { kind: "note", text: "@Tobias?" });
    expect(await bell()).toEqual({ unread: 2, pop: null });
    await openConversation(deps, desk.tobiasGrant, first);
    expect((await bell()).unread).toBe(1);
    await chooseNotificationSettings(
      deps,
      desk.tobiasGrant,
      readNotificationSettings({ events: { mentioned: { list: false } } }),
    );
    expect((await bell()).unread).toBe(0);
    await chooseNotificationSettings(deps, desk.tobiasGrant, readNotificationSettings({}));
    await readNotifications(deps, desk.tobiasGrant, null);
    expect((await bell()).unread).toBe(0);
  });

  it("shows the newest in the browser only where that was chosen, and not in quiet hours", async () => {
    const { deps } = desk.tray;
    await desk.does(desk.lead, await desk.arrive(), { kind: "assign", ownerId: desk.tobias.id });
    const shows = async (part: object) => {
      await chooseNotificationSettings(
        deps,
        desk.tobiasGrant,
        readNotificationSettings({ events: { assigned: { browser: true } }, ...part }),
      );
      return (await bell()).pop?.event ?? null;
    };
    expect(await shows({})).toBe("assigned");
    expect(await shows({ quiet: { from: 0, to: 23 * 60 } })).toBeNull();
    expect(await shows({ events: {} })).toBeNull();
  });
});
