import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { passes, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ConversationId } from "~/core/kernel/ids";
import { decide, editGroup } from "~/operations/index.server";
import { loader as suggestAssignees } from "~/web/routes/conversation/assignee-suggestions";
import { loader as conversationPage } from "~/web/routes/conversation/conversation";
import { action as editNote } from "~/web/routes/conversation/edit-note";
import { action as presence, loader as presencePage } from "~/web/routes/conversation/presence";
import { loader as absenceSummary, action as readSummary } from "~/web/routes/people/absence-summary";
import { action as away, loader as awayPage } from "~/web/routes/people/away";
import { action as members, loader as membersPage } from "~/web/routes/people/members";
import { action as told, loader as toldPage } from "~/web/routes/people/notifications";
import { action as letsRun, loader as overviewPage } from "~/web/routes/people/overview";
import { loader as people } from "~/web/routes/people/people";
import { loader as trayPage } from "~/web/routes/shell/tray";
import { action as drafts } from "~/web/routes/writing/drafts";

let desk: Desk;
let ines: Visitor;
let tobias: Visitor;
let mara: Visitor;
let id: ConversationId;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  tobias = visitor(tray.deps, desk.tobias, desk.tobiasGrant);
  mara = visitor(tray.deps, desk.mara, desk.maraGrant);
  id = await desk.arrive({ subject: "The wind leaks" });
});
afterAll(() => desk.tray.close());

const onIt = () => ({ conversation: id });
const dataOf = async <T>(page: Promise<T>) => {
  const given = (await page) as { readonly data?: unknown };
  return (given?.data ?? given) as never;
};
const PAGE = "01900000-0000-4000-8000-0000000000aa";

describe("the open conversation", () => {
  it("has its notes with what they name, its followers, and its drafts with their text", async () => {
    await desk.does(desk.lead, id, { kind: "follow", memberId: desk.mara.id, follows: true });
    done(
      await decide(
        desk.tray.deps,
        desk.lead,
        { ids: [id], seenVersion: null },
        { kind: "note", text: "@Tobias: now?" },
      ),
    );
    const fields = { do: "hand", member: desk.tobias.id, note: "please", html: "<p>We come.</p>" };
    const more = { to: "", cc: "", subject: "Re", after: "settle", day: "" };
    expect(await ines.posts(drafts, { ...fields, ...more }, onIt())).toMatchObject({ status: 200 });
    const view = await tobias.looksAt(conversationPage, onIt());
    const note = view.correspondence.find(({ type }) => type === "note");
    expect(note).toMatchObject({ who: "Ines Varga", editable: null, isEdited: false });
    expect(view.followers).toEqual([{ id: desk.mara.id, name: "Mara Quell" }]);
    expect(view.drafts).toMatchObject([{ writer: "Ines Varga", holder: "You", isMine: true, note: "please" }]);
    expect(view.passOn).toMatchObject({ start: { subject: "Fwd: The wind leaks" }, who: "Perpetua Vane" });
    expect(view.journal.filter(({ words }) => words.includes("draft")).map(({ batchId }) => batchId)).toEqual([null]);
  });

  it("lets the writer of a note write it anew, with what is wrong in words", async () => {
    const view = await ines.looksAt(conversationPage, onIt());
    const note = view.correspondence.find(({ type }) => type === "note");
    const entry = note?.type === "note" ? note.entryId : "";
    const params = { ...onIt(), entry };
    expect(await ines.posts(editNote, { text: " " }, params)).toMatchObject({
      status: 400,
      data: { problem: "Write something first." },
    });
    expect(await tobias.posts(editNote, { text: "mine" }, params)).toMatchObject({ status: 409 });
    expect(await ines.posts(editNote, { text: "later" }, params)).toMatchObject({ status: 200, data: { ok: true } });
    expect(await refusalOf(ines.posts(editNote, { text: "x" }, { ...onIt(), entry: "no id" }))).toBe(404);
  });

  it("says who is there, and who could take it", async () => {
    await tobias.posts(presence, { page: PAGE, doing: "writing" }, onIt());
    const seen = (await ines.looksAt(presencePage, onIt())) as Response;
    expect(await seen.json()).toEqual({ present: [{ memberId: desk.tobias.id, doing: "writing" }] });
    await tobias.posts(presence, { page: PAGE, doing: "gone" }, onIt());
    expect(await refusalOf(tobias.posts(presence, { page: "x", doing: "looking" }, onIt()))).toBe(400);
    const could: { id: string }[] = await dataOf(ines.looksAt(suggestAssignees, onIt()));
    expect(could.map((one) => one.id).toSorted()).toEqual([desk.ines.id, desk.tobias.id, desk.mara.id].toSorted());
    const known: { people: { mayLook: boolean }[] } = await dataOf(ines.looksAt(people));
    expect(known.people.every(({ mayLook }) => mayLook)).toBe(true);
  });

  it("of no tray is not found", async () => {
    const nowhere = { conversation: "no id" };
    const refused = [
      await refusalOf(ines.looksAt(suggestAssignees, nowhere)),
      await refusalOf(Promise.resolve(ines.looksAt(presencePage, nowhere))),
      await refusalOf(ines.posts(drafts, {}, nowhere)),
    ];
    expect(refused).toEqual([404, 404, 404]);
  });
});

describe("the page of what one is told", () => {
  it("lists it with its conversation, and reads it", async () => {
    const listed = await tobias.looksAt(toldPage);
    expect(listed.map(({ event, subject, isRead }) => [event, subject, isRead])).toEqual([
      ["draft", "The wind leaks", true],
      ["mentioned", "The wind leaks", true],
    ]);
    await desk.does(desk.lead, id, { kind: "assign", ownerId: desk.tobias.id });
    expect((await tobias.looksAt(trayPage)).bell.unread).toBe(1);
    expect(await tobias.posts(told, { do: "read" })).toMatchObject({ data: { ok: true } });
    expect((await tobias.looksAt(trayPage)).bell.unread).toBe(0);
  });

  it("says beside the field why something is not watched", async () => {
    const tries = [
      await tobias.posts(told, { do: "watch", kind: "person", value: "nobody" }),
      await tobias.posts(told, { do: "watch", kind: "words", value: "felt" }),
      await tobias.posts(told, { do: "watch", kind: "words", value: "felt" }),
    ];
    expect(tries.map(({ data }) => data.problems)).toEqual([
      { value: "Write an address, or @ and a domain." },
      undefined,
      { value: "You watch that already." },
    ]);
  });
});

describe("members", () => {
  it("are listed for everybody, and changed by who leads, in words", async () => {
    const page = await mara.looksAt(membersPage);
    expect(page.members.map(({ name, role }) => [name, role])).toEqual([
      ["Ines Varga", "lead"],
      ["Mara Quell", "member"],
      ["Rook Reader", "reader"],
      ["Tobias Lund", "member"],
    ]);
    const made = await ines.posts(members, { do: "invite", role: "reader" });
    expect(made.data).toMatchObject({
      ok: true,
      said: "Invitation made",
      link: expect.stringMatching(/\/invite\/\S{40,}$/),
    });
    expect((await ines.looksAt(membersPage)).invitations).toMatchObject([{ role: "reader", until: "1 Dec" }]);
    const refused = await mara.posts(members, { do: "role", member: desk.tobias.id, role: "lead" });
    expect(refused).toMatchObject({ status: 409, data: { problem: "That is for those who lead the tray." } });
    const last = await ines.posts(members, { do: "role", member: desk.ines.id, role: "member" });
    expect(last.data.problem).toBe("A tray needs a lead. Name another one first.");
  });

  it("find in the overview what was put aside, and let it run again where they lead", async () => {
    const { deps, ask } = desk.tray;
    const id = deps.newId();
    await ask("insert into job_aside (id, key, kind, about, at) values ($1, 'k', 'empty-bins', 'Emptying bins', $2)", [
      id,
      new Date(deps.now()),
    ]);
    expect((await ines.looksAt(overviewPage)).aside).toMatchObject([{ id, about: "Emptying bins", waits: true }]);
    expect((await tobias.posts(letsRun, { id })).status).toBe(409);
    expect(await ines.posts(letsRun, { id })).toMatchObject({ status: 200, data: { ok: true } });
    expect((await ines.looksAt(overviewPage)).aside).toMatchObject([{ id, waits: false }]);
    expect((await ines.posts(letsRun, { id: "1" })).status).toBe(400);
  });

  it("stand in the overview, which is for who leads", async () => {
    expect(await refusalOf(tobias.looksAt(overviewPage))).toBe(403);
    const { desks } = await ines.looksAt(overviewPage);
    expect(desks.find(({ memberId }) => memberId === desk.tobias.id)).toMatchObject({ todo: 1, waiting: 0 });
  });

  it("and groups are with the tray for every screen, each as she can be met now", async () => {
    const memberIds = [desk.tobias.id];
    done(await editGroup(desk.tray.deps, desk.lead, { id: null, name: "Workshop", memberIds }));
    const { groups, members: colleagues } = await tobias.looksAt(trayPage);
    expect(groups).toMatchObject([{ name: "Workshop", memberIds }]);
    expect(colleagues.find(({ id: one }) => one === desk.reader.memberId)).toMatchObject({ reads: true, away: null });
  });
});

describe("hours and time off", () => {
  it("is planned by days, with what is wrong beside its field", async () => {
    const wrong = await tobias.posts(away, { do: "plan", from: "2026-11-26", to: "2026-11-25", record: "P-1" });
    expect(wrong.data.problems).toEqual({
      to: "It ends before it begins.",
      record: "There is no record P-1.",
      "record-cover": "Choose who covers it.",
    });
    expect((await tobias.posts(away, { do: "plan" })).data.problems).toEqual({
      from: "Choose the first day.",
      to: "Choose the last day.",
    });
    const fields = { from: "2026-11-24", to: "2026-11-26", [`cover-${desk.lead.tray.id}`]: desk.mara.id };
    expect((await tobias.posts(away, { do: "plan", ...fields })).data).toEqual({ ok: true, said: "Time off planned" });
    const page = await tobias.looksAt(awayPage);
    expect(page.own).toMatchObject([
      { stretch: "today to Thu", isNow: true, covers: [{ words: "Mara Quell covers Ottermoor" }] },
    ]);
    expect((await mara.looksAt(awayPage)).away).toMatchObject([{ name: "Tobias Lund" }]);
    const colleague = (await mara.looksAt(trayPage)).members.find(({ id: one }) => one === desk.tobias.id);
    expect(colleague?.away).toEqual({ back: "Fri", coverId: desk.mara.id, cover: "Mara Quell" });
  });

  it("keeps hours of one's own, or the tray's", async () => {
    const own = { do: "week", own: "on", "open-1": "on", "from-1": "10:00", "to-1": "14:00" };
    expect((await tobias.posts(away, own)).data).toEqual({ ok: true, said: "Your hours are saved" });
    expect((await tobias.looksAt(awayPage)).week?.slice(0, 2)).toEqual([
      null,
      { from: "10:00", to: "14:00", pause: null },
    ]);
    expect((await tobias.posts(away, { ...own, "to-1": "9:00" })).status).toBe(400);
    await tobias.posts(away, { do: "week" });
    expect((await tobias.looksAt(awayPage)).week).toBeNull();
  });

  it("ends, and its summary is read once", async () => {
    const [off] = (await tobias.looksAt(awayPage)).own;
    const params = { timeOff: off?.id ?? "" };
    await desk.answers(desk.mara, id);
    passes(desk.tray, 10);
    expect((await tobias.posts(away, { do: "end", id: params.timeOff })).data).toEqual({
      ok: true,
      said: "Time off ended",
    });
    expect((await tobias.looksAt(trayPage)).absenceSummary).toMatchObject([{ id: params.timeOff, isOver: true }]);
    expect((await tobias.looksAt(absenceSummary, params)).happened).toMatchObject([
      { words: "1 message came, answered once" },
    ]);
    expect(await refusalOf(mara.looksAt(absenceSummary, params))).toBe(404);
    expect((await tobias.posts(readSummary, {}, params)).status).toBe(302);
    expect((await tobias.looksAt(trayPage)).absenceSummary).toEqual([]);
  });
});
