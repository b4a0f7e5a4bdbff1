import { INES, TOBIAS } from "@tests/support/a-conversation";
import { describe, expect, it } from "vitest";
import type { AssigneeSuggestions } from "../../../core/assigning/assignee-suggestions";
import {
  type ConversationId,
  type NotificationId,
  type TimeOffId,
  type TrayId,
  trustedId,
} from "../../../core/kernel/ids";
import { DAY, HOUR, instant, later, readInstant } from "../../../core/kernel/instant";
import { readNotificationSettings } from "../../../core/notifications/notification-settings";
import type { AbsenceSummary, Desk, KeptTimeOff, ListedNotification, Member } from "../../../operations/index.server";
import { assigneeSuggestionsView } from "../conversation/assignee-suggestions-view.server";
import { noteView } from "../conversation/note-view.server";
import { absenceView } from "./absence-view.server";
import { notificationSettingsView, notificationsView } from "./notification-view.server";
import { overviewView } from "./overview-view.server";
import { timeOffView } from "./time-off-view.server";

// A Tuesday.
const now = readInstant("2026-11-24T10:00:00Z") ?? instant(0);
const reading = { memberId: INES, zone: "UTC", now, covering: [] };
const member = (id: Member["id"], name: string): Member => ({
  id,
  name,
  signInName: name.toLowerCase(),
  initials: "XX",
  timeZone: "UTC",
});
const members = [member(INES, "Ines Varga"), member(TOBIAS, "Tobias Lund")];
const C1 = "019aa5b0-0000-7000-8000-0000000000c1";

describe("a note", () => {
  const named = {
    records: [{ id: trustedId("r"), code: "P-26-012", title: "Case", kind: "project", parentId: null, closed: false }],
    conversations: [{ id: trustedId<ConversationId>(C1), subject: "The key", standing: "our-move" }],
  } as never;
  const pieces = (text: string) =>
    noteView(text, { slug: "office", members, named }).flatMap(({ kind, lines }) =>
      lines.map((line) => [kind, ...line.pieces.map((piece) => [piece.kind, piece.text, piece.href])]),
    );
  it.each<[string, unknown]>([
    ["plain words", [["lines", ["text", "plain words", null]]]],
    ["@tobias, look", [["lines", ["person", "Tobias Lund", null], ["text", ", look", null]]]],
    [
      "- on P-26-012\n- not on P-26-013",
      [
        ["list", ["text", "on ", null], ["inside", "P-26-012", "/office/records/P-26-012"]],
        ["list", ["text", "not on P-26-013", null]],
      ],
    ],
    [
      `see http://tray.example/office/to-sort/${C1}`,
      [["lines", ["text", "see ", null], ["inside", "The key", `/office/our-move/${C1}`]]],
    ],
    [
      "https://felt.example/red now",
      [["lines", ["outside", "https://felt.example/red", "https://felt.example/red"], ["text", " now", null]]],
    ],
    ["javascript:alert(1)", [["lines", ["text", "javascript:alert(1)", null]]]],
  ])("%j", (text, expected) => expect(pieces(text)).toEqual(expected));
});

describe("who could take it", () => {
  const none = { hers: 0, all: 0 };
  const could = (part: Partial<AssigneeSuggestions>): AssigneeSuggestions => ({
    memberId: TOBIAS,
    withPerson: none,
    withRecord: none,
    withCategory: none,
    load: 2,
    open: 3,
    awayUntil: null,
    atWorkFrom: null,
    score: 0,
    hasLeast: false,
    ...part,
  });
  const reasons = (part: Partial<AssigneeSuggestions>) =>
    assigneeSuggestionsView([could(part)], members, { who: "P. Vane" }, reading)[0]?.reasons;
  it.each<[Partial<AssigneeSuggestions>, string[]]>([
    [{}, []],
    [{ withPerson: { hers: 7, all: 9 } }, ["7 of 9 with P. Vane"]],
    [{ withRecord: { hers: 1, all: 2 }, hasLeast: true }, ["1 of 2 on this record", "least to do of all"]],
    [{ withCategory: { hers: 2, all: 2 } }, ["2 of 2 in this category"]],
    [{ atWorkFrom: later(now, DAY) }, ["at work tomorrow 10:00"]],
    [{ awayUntil: later(now, 3 * DAY), atWorkFrom: later(now, DAY) }, ["away until Fri"]],
  ])("%j", (part, expected) => expect(reasons(part)).toEqual(expected));

  it("is drawn against who has most, without those who left", () => {
    const [ines, tobias] = [could({ memberId: INES, load: 8 }), could({ load: 2 })];
    const view = assigneeSuggestionsView(
      [ines, tobias, could({ memberId: trustedId("gone") })],
      members,
      { who: "" },
      reading,
    );
    expect(view.map(({ name, load }) => [name, load])).toEqual([
      ["Ines Varga", 1],
      ["Tobias Lund", 0.25],
    ]);
  });
});

describe("a time off", () => {
  const tray = { id: trustedId<TrayId>("office"), slug: "office", name: "Office", timeZone: "UTC", addresses: [] };
  const people = [{ tray, members: members.map((one) => ({ ...one, role: "member" as const, week: null })) }];
  const off = (part: Partial<KeptTimeOff>) =>
    timeOffView(
      {
        id: trustedId<TimeOffId>("t"),
        memberId: TOBIAS,
        from: later(now, -10 * HOUR),
        until: later(now, 14 * HOUR),
        covers: [],
        summaryReadAt: null,
        ...part,
      },
      people,
      reading,
    );
  it("is told by its first and last day", () => {
    expect(off({})).toMatchObject({ stretch: "today", isNow: true, isOver: false, name: "Tobias Lund", covers: [] });
    expect(off({ until: later(now, 38 * HOUR) }).stretch).toBe("today to tomorrow");
    expect(off({ from: later(now, -9 * DAY), until: later(now, -10 * HOUR) })).toMatchObject({
      stretch: "15 Nov to yesterday",
      isOver: true,
    });
  });
  it("says who covers what", () => {
    const covers = [
      { trayId: tray.id, recordId: trustedId<never>("r"), memberId: INES },
      { trayId: tray.id, recordId: null, memberId: INES },
    ];
    expect(off({ covers }).covers.map(({ words }) => words)).toEqual([
      "Ines Varga covers a record in Office",
      "Ines Varga covers Office",
    ]);
  });
});

describe("what happened while one was away", () => {
  const happened = (part: Partial<AbsenceSummary>): AbsenceSummary => ({
    id: trustedId<ConversationId>("c"),
    subject: "Key",
    who: "P. Vane",
    standing: "our-move",
    ownerId: INES,
    received: 0,
    answered: 0,
    by: [],
    isOthers: false,
    ...part,
  });
  const view = (...all: AbsenceSummary[]) =>
    absenceView(
      { timeOff: { from: later(now, -8 * DAY), until: later(now, -DAY) } as KeptTimeOff, happened: all },
      reading,
    );
  it("is nothing, or a sentence of figures", () => {
    expect(view().words).toBe("Nothing happened in what is yours.");
    const all = [
      happened({ received: 2, answered: 1, standing: "settled" }),
      happened({ received: 1 }),
      happened({ isOthers: true }),
    ];
    expect(view(...all).words).toBe(
      "Something happened in 3 conversations of yours: 2 got new messages, 1 answered for you, 1 settled, 1 given to somebody else.",
    );
  });
  it.each<[Partial<AbsenceSummary>, string]>([
    [{ received: 1 }, "1 message came"],
    [{ received: 2, answered: 1 }, "2 messages came, answered once"],
    [{ answered: 3, isOthers: true }, "answered 3 times, no longer yours"],
    [{}, "decided about"],
  ])("%j", (part, words) => expect(view(happened(part)).happened[0]?.words).toBe(words));
});

it("the overview sums up what is to do, and marks what is old", () => {
  const desk: Desk = {
    memberId: INES,
    toSort: 1,
    ourMove: 4,
    waiting: 2,
    resting: 0,
    overdue: 1,
    oldestSince: later(now, -6 * DAY),
    settledToday: 3,
    answeredToday: 2,
    followUpsDue: 0,
  };
  const [old, fresh, none] = overviewView(
    [desk, { ...desk, oldestSince: later(now, -DAY) }, { ...desk, oldestSince: null }],
    reading,
  );
  expect([old?.todo, old?.oldest, old?.isOld]).toEqual([5, "6 days", true]);
  expect([fresh?.isOld, none?.oldest, none?.isOld]).toEqual([false, "", false]);
});

it("what one is told is by day, with the settings as their fields show them", () => {
  const told: ListedNotification = {
    id: trustedId<NotificationId>("n"),
    memberId: INES,
    trayId: trustedId<TrayId>("office"),
    conversationId: null,
    at: later(now, -DAY),
    event: "assigned",
    by: TOBIAS,
    count: 3,
    words: "",
    isRead: false,
    subject: null,
    standing: null,
  };
  const settings = readNotificationSettings({
    quiet: { from: 1_080, to: 425 },
    digestAt: 480,
    events: { reply: { browser: true } },
  });
  expect(notificationsView([told], reading)[0]).toMatchObject({ day: "Yesterday", when: "yesterday 10:00", count: 3 });
  const view = notificationSettingsView(settings, []);
  expect([view.settings.quietFrom, view.settings.quietTo, view.settings.digestAt]).toEqual(["18:00", "07:05", "08:00"]);
  expect(view.settings.events.filter(({ browser }) => browser).map(({ event }) => event)).toEqual(["reply"]);
});
