import { type Desk, setUpDesk } from "@tests/support/desk";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { address, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ConversationId } from "~/core/kernel/ids";
import { DAY, later } from "~/core/kernel/instant";
import { answerConversation } from "~/operations/index.server";
import { loader as conversationPage } from "~/web/routes/conversation/conversation";
import { action as saveSettings, loader as settingsPage } from "~/web/routes/office/tray-settings";
import { loader as horizonPage } from "~/web/routes/waiting/horizon";
import { action as dismiss, loader as looseEndsPage } from "~/web/routes/waiting/loose-ends";
import { loader as looseEndsCount } from "~/web/routes/waiting/loose-ends-count";
import { loader as preview, action as remind } from "~/web/routes/waiting/reminders";
import { action as getTextSuggestions } from "~/web/routes/writing/text-suggestions";

let desk: Desk;
let ines: Visitor;
let late: ConversationId;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  late = await desk.arrive({ subject: "Late", from: "otto@quayle.example" });
  await answerConversation(tray.deps, desk.lead, desk.ines, late, {
    to: [{ name: "Otto Quayle", address: address("otto@quayle.example") }],
    cc: [],
    subject: "Re: Late",
    html: "<p>When?</p>",
    after: { kind: "expect", until: later(tray.clock.now, DAY) },
  });
  tray.clock.now = later(tray.clock.now, 4 * DAY);
});
afterAll(() => desk.tray.close());

describe("the horizon", () => {
  it("has each row with its axis, its words, and the reminders that are to go", async () => {
    const { rows, overdue } = await ines.looksAt(horizonPage);
    expect(rows.map(({ row, overWords, usual, chance }) => [row.id, overWords, usual, chance])).toEqual([
      [late, "3 working days overdue", null, null],
    ]);
    expect(rows[0]?.askedAt).toBeLessThan(rows[0]?.row.expectedAt ?? 0);
    expect(overdue).toBe(1);
    expect(rows[0]?.reminder).toBeNull();
    const plan = { do: "plan", conversation: late, tone: "firm", language: "de", series: "true" };
    expect(await ines.posts(remind, plan)).toMatchObject({ status: 200, data: { ok: true, said: "Reminder planned" } });
    expect((await ines.looksAt(horizonPage)).rows[0]?.reminder).toMatch(/\d/);
    const called = await ines.posts(remind, { do: "call-off", conversation: late });
    expect(called.data).toEqual({ ok: true, said: "4 reminders called off" });
  });

  it("prepares a reminder in a style, and says beside the field what is wrong", async () => {
    const query = `conversation=${late}&tone=friendly&language=fr`;
    expect((await ines.looksAt(preview, {}, query)).text).toContain("au sujet de « Late »");
    // Of a style that there is not, the first there is.
    expect((await ines.looksAt(preview, {}, `conversation=${late}&tone=loud`)).text).toContain("may I come back");
    expect(await refusalOf(ines.looksAt(preview, {}, "conversation=x"))).toBe(404);
    expect(await refusalOf(ines.looksAt(preview, {}, `conversation=${desk.ines.id}`))).toBe(404);
    const empty = { do: "plan", conversation: late, own: "true", text: " " };
    expect((await ines.posts(remind, empty)).data).toMatchObject({
      problems: { text: "Write what they are to read." },
    });
    expect((await ines.posts(remind, { do: "plan" })).status).toBe(400);
    const nothing = await desk.arrive({ subject: "Nothing awaited" });
    expect(await ines.posts(remind, { do: "plan", conversation: nothing })).toMatchObject({
      status: 409,
      data: { problem: "Nothing is awaited there any more." },
    });
  });
});

describe("loose ends", () => {
  it("are listed with why, counted, and called none with a reason", async () => {
    const found = async () => (await ines.looksAt(looseEndsPage)).rows.filter(({ row }) => row.id === late);
    expect(await found()).toMatchObject([{ kind: "overdue", words: expect.stringContaining("3 days ago") }]);
    const { count } = await (await ines.looksAt(looseEndsCount)).json();
    expect(count).toBe(1);
    const none = { do: "dismiss", conversation: late, kind: "overdue" };
    expect((await ines.posts(dismiss, { ...none, reason: " " })).data).toMatchObject({
      problems: { reason: "Say why, for whoever finds it later." },
    });
    expect((await ines.posts(dismiss, { ...none, reason: "they rang" })).status).toBe(200);
    expect(await found()).toEqual([]);
    expect((await ines.posts(dismiss, { ...none, do: "take-back" })).data).toMatchObject({ said: "A loose end again" });
    expect(await found()).toHaveLength(1);
    expect((await ines.posts(dismiss, { ...none, kind: "weather", reason: "x" })).status).toBe(400);
    expect((await ines.posts(dismiss, { ...none, do: "else" })).status).toBe(400);
    const elsewhere = { ...none, conversation: desk.ines.id, reason: "x" };
    expect((await ines.posts(dismiss, elsewhere)).status).toBe(409);
  });
});

describe("the docket", () => {
  it("says from whom an answer is awaited, how it stands, and what they promised", async () => {
    const view = await ines.looksAt(conversationPage, { conversation: late });
    expect(view.expectations).toMatchObject([
      {
        whom: "Otto Quayle",
        state: expect.stringMatching(/^by .+ overdue$/),
        isOpen: true,
        isOver: true,
        answeredBy: null,
      },
    ]);
    const promising = await desk.arrive({ subject: "Soon", body: "We will send it by 24 December 2026." });
    const { promised } = await ines.looksAt(conversationPage, { conversation: promising });
    expect(promised).toMatchObject({ text: "We will send it by 24 December 2026.", at: "2026-12-24T17:00:00.000Z" });
  });

  it("is told what a draft asks and promises", async () => {
    const { data } = await ines.posts(getTextSuggestions, { text: "I will send it by 24 December 2026. Is it dry?" });
    expect(data).toMatchObject({
      asks: [{ text: "Is it dry?", date: null }],
      promises: [{ date: { until: "2026-12-24", at: "2026-12-24T17:00:00.000Z" } }],
    });
  });
});

describe("the holidays of a tray", () => {
  const week = { "open-1": "on", "from-1": "09:00", "to-1": "12:30", "answer-within": "12", holidays: "2026-12-24" };
  it("can come out of a calendar file, whose broken lines are named", async () => {
    const file = new File(
      [
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261225\r\nEND:VEVENT\r\n",
        "BEGIN:VEVENT\r\nSUMMARY:?\r\nEND:VEVENT\r\nEND:VCALENDAR",
      ],
      "days.ics",
    );
    const posted = await ines.posts(saveSettings, { ...week, calendar: file as never });
    expect(posted.data).toEqual({
      ok: true,
      said: "1 day more is a holiday now",
      problems: { calendar: "The rest is kept. Of the file, line 5: this event has no date that can be read." },
    });
    expect(await ines.looksAt(settingsPage)).toMatchObject({
      holidays: ["2026-12-24", "2026-12-25"],
      answerWithin: 12,
    });
  });

  it("never close a tray for good", async () => {
    const never = { holidays: "", "answer-within": "12" };
    expect((await ines.posts(saveSettings, never)).data).toMatchObject({
      problems: { week: expect.stringContaining("would never be open") },
    });
  });
});
