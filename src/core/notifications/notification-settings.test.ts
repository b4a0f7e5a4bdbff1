import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type MemberId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import { NOTIFICATION_EVENTS } from "./events";
import { notificationInWords } from "./notification-in-words";
import { digestDue, eventsNotifiedBy, isQuiet, readNotificationSettings } from "./notification-settings";
import { type Watch, watchesFor } from "./watches";

const at = (time: string) => instant(Date.parse(`2026-11-26T${time}:00Z`));
const LONDON = "Europe/London";

describe("how a member is told", () => {
  it("lists everything and shows nothing in the browser, where she chose nothing", () => {
    const usual = readNotificationSettings(undefined);
    expect(eventsNotifiedBy(usual, "list")).toEqual([...NOTIFICATION_EVENTS]);
    expect(eventsNotifiedBy(usual, "browser")).toEqual([]);
    expect([usual.quiet, usual.digestAt]).toEqual([null, null]);
  });
  it("keeps what she chose", () => {
    const chosen = readNotificationSettings({
      events: { reply: { list: true, browser: true }, digest: { list: false } },
    });
    expect(eventsNotifiedBy(chosen, "browser")).toEqual(["reply"]);
    expect(eventsNotifiedBy(chosen, "list")).not.toContain("digest");
  });
  it("shows nothing in the browser that is not listed", () => {
    expect(
      eventsNotifiedBy(readNotificationSettings({ events: { reply: { list: false, browser: true } } }), "browser"),
    ).toEqual([]);
  });
  it.each([
    [{ quiet: { from: -1, to: 5 } }],
    [{ quiet: { from: 1 } }],
    [{ digestAt: 1_440 }],
    [{ digestAt: "8" }],
    [7],
  ])("%j is as if nothing were chosen", (kept) =>
    expect(readNotificationSettings(kept)).toEqual(readNotificationSettings(undefined)),
  );
});

describe("quiet hours", () => {
  const quiet = (from: number, to: number, time: string, zone = LONDON) =>
    isQuiet(readNotificationSettings({ quiet: { from: from * 60, to: to * 60 } }), at(time), zone);
  it.each([
    [9, 17, "08:59", false],
    [9, 17, "09:00", true],
    [9, 17, "17:00", false],
    [18, 7, "23:00", true],
    [18, 7, "06:59", true],
    [18, 7, "07:00", false],
    [9, 9, "03:00", true],
  ])("from %i to %i, at %s: %s", (from, to, time, is) => expect(quiet(from, to, time)).toBe(is));
  it("are by the clock of her zone", () => expect(quiet(9, 10, "08:30", "Europe/Berlin")).toBe(true));
  it("are none where she wants none", () =>
    expect(isQuiet(readNotificationSettings(null), at("03:00"), LONDON)).toBe(false));
});

describe("the digest", () => {
  it.each([
    ["07:59", null],
    ["08:00", "2026-11-26"],
    ["23:30", "2026-11-26"],
  ])("of eight o'clock is due at %s: %s", (time, day) =>
    expect(digestDue(readNotificationSettings({ digestAt: 480 }), at(time), LONDON)).toBe(day),
  );
  it("is never due for who wants none", () => {
    expect(digestDue(readNotificationSettings({}), at("12:00"), LONDON)).toBeNull();
    expect(
      digestDue(readNotificationSettings({ digestAt: 480, events: { digest: { list: false } } }), at("12:00"), LONDON),
    ).toBeNull();
  });
});

describe("what one is told", () => {
  const told = { who: "Tobias", count: 1, words: "P. Vane" };
  it.each([
    [{ ...told, event: "assigned", words: "" }, "Tobias assigned this to you", ""],
    [{ ...told, event: "assigned", count: 40, words: "" }, "Tobias assigned 40 conversations to you", ""],
    [{ ...told, event: "mentioned", words: "look" }, "Tobias wants you to see this", "look"],
    [{ ...told, event: "reply", who: null }, "P. Vane wrote", ""],
    [{ ...told, event: "words", who: null }, "P. Vane wrote with words you watch", ""],
    [{ ...told, event: "overdue", who: null, words: "call" }, "Follow-up overdue", "call"],
    [{ ...told, event: "draft", who: null, words: "" }, "The tray gave you a draft", ""],
  ] as const)("%j", (given, line, beside) => expect(inEnglish(notificationInWords(given))).toEqual({ line, beside }));
});

describe("watching", () => {
  const TUNING = trustedId<CategoryId>("tuning");
  const watch = (kind: Watch["kind"], value: string): Watch => ({ memberId: trustedId<MemberId>("ines"), kind, value });
  const message = {
    from: "vane@vanehouse.example" as EmailAddress,
    subject: "The Größe of the reservoir",
    text: "It leaks again, near the trunk.",
    categoryIds: [TUNING],
  };
  it.each([
    ["person", "vane@vanehouse.example", true],
    ["person", "@vanehouse.example", true],
    ["person", "@house.example", false],
    ["category", "tuning", true],
    ["category", "leather", false],
    ["words", "reservoir leaks", true],
    ["words", "GROSSE", false],
    ["words", "größe", true],
    ["words", "reserv", false],
    ["words", "  ", false],
  ] as const)("%s “%s” is for the message: %s", (kind, value, is) =>
    expect(watchesFor(message, [watch(kind, value)]).length === 1).toBe(is),
  );
  it("of a person is not for a message without a sender", () => {
    expect(watchesFor({ ...message, from: null }, [watch("person", "@")])).toEqual([]);
  });
});
