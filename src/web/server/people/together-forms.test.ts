import { describe, expect, it } from "vitest";
import { readAnswer } from "../writing/answer-form.server";
import { readDraftStep } from "../writing/draft-form.server";
import { readNewcomer } from "./invite-form.server";
import { readMembersStep } from "./members-form.server";
import { readNotificationStep } from "./notification-form.server";
import { readWeek, weekView } from "./week-form.server";

const ID = "019aa5b0-0000-7000-8000-000000000001";
const form = (fields: Record<string, string | string[]>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) for (const one of [value].flat()) data.append(name, one);
  return data;
};

describe("a posted answer, as far as others go", () => {
  const usual = { to: "vane@vanehouse.example", subject: "Re", html: "<p>Yes</p>", after: "settle" };
  const read = (fields: Record<string, string>) => {
    const answer = readAnswer(form({ ...usual, ...fields }), "UTC");
    return answer.ok ? answer.value : answer.error;
  };
  it.each<[Record<string, string>, object]>([
    [{}, { seenVersion: null, anyway: false, draft: null, passesOn: null, informs: null }],
    [{ version: "7" }, { seenVersion: 7 }],
    [{ anyway: "on" }, { anyway: true }],
    [{ draft: ID, draftVersion: "2" }, { draft: { id: ID, version: 2 } }],
    [
      { passesOn: ID, informs: " It is passed on. ", wordsOnly: "on" },
      { passesOn: ID, informs: "It is passed on.", wordsOnly: true },
    ],
  ])("%j", (fields, expected) => expect(read(fields)).toMatchObject(expected));
});

describe("a posted step of a draft", () => {
  const content = { to: "", cc: "", subject: "Re", html: "<p>Yes</p>", after: "keep", day: "" };
  const read = (fields: Record<string, string>) => {
    const step = readDraftStep(form(fields));
    return step.ok ? step.value : step.error;
  };
  it("hands over what is written, half done as it may be", () => {
    const enclosures = [{ id: ID, name: "plan.pdf", size: 7 }];
    const more = { bcc: "petra@new.example", template: ID, categories: ID };
    const given = { ...content, enclosures: JSON.stringify(enclosures), ...more };
    expect(read({ do: "hand", member: ID, note: " check ", ...given })).toEqual({
      do: "hand",
      to: ID,
      note: "check",
      content: { ...content, enclosures, ...more, categories: [ID] },
      seen: null,
      ownDraft: null,
    });
    expect(read({ do: "hand", member: ID, ...content })).toMatchObject({ content: { ...content, enclosures: [] } });
    expect(read({ do: "hand", member: ID, ...content, draft: ID, version: "3" })).toMatchObject({
      seen: { id: ID, version: 3 },
    });
    expect(read({ do: "hand", member: ID, ...content, ownDraft: ID })).toMatchObject({ seen: null, ownDraft: ID });
  });
  it("returns and gives up what was seen", () => {
    const seen = { id: ID, version: 1 };
    expect(read({ do: "return", draft: ID, version: "1", note: "no" })).toEqual({ do: "return", seen, note: "no" });
    expect(read({ do: "give-up", draft: ID, version: "1" })).toEqual({ do: "give-up", seen });
  });
  it.each<[Record<string, string>, object]>([
    [{ do: "hand", member: "", ...content }, { member: "Choose who is to check it." }],
    [{ do: "hand", member: ID, ...content, html: "<p> </p>" }, { html: "Write something first." }],
    [{ do: "return", draft: ID, version: "1", note: " " }, { note: "Say what is to be changed." }],
    [{ do: "burn" }, { note: "That is nothing that can be done with a draft." }],
  ])("%j is refused beside its field", (fields, problems) => expect(read(fields)).toEqual(problems));
});

describe("a posted step about members", () => {
  const read = (fields: Record<string, string | string[]>) => {
    const step = readMembersStep(form(fields));
    return step.ok ? step.value : step.error;
  };
  it.each<[Record<string, string | string[]>, object]>([
    [
      { do: "role", member: ID, role: "reader" },
      { do: "role", memberId: ID, role: "reader" },
    ],
    [
      { do: "invite", role: "member" },
      { do: "invite", role: "member" },
    ],
    [
      { do: "take-back", id: ID },
      { do: "take-back", id: ID },
    ],
    [
      { do: "shut-out", member: ID, to: `to ${ID}` },
      { do: "shut-out", memberId: ID, handOver: { kind: "to", memberId: ID } },
    ],
    [{ do: "shut-out", member: ID, to: `group ${ID}` }, { handOver: { kind: "in-turn", groupId: ID } }],
    [{ do: "shut-out", member: ID, to: "nobody" }, { handOver: { kind: "nobody" } }],
    [
      { do: "group", name: " Workshop ", members: [ID, ID.replace("1", "2")] },
      { do: "group", id: null, name: "Workshop", memberIds: [ID, ID.replace("1", "2")] },
    ],
    [
      { do: "group", id: ID, name: "Workshop", members: ID },
      { id: ID, memberIds: [ID] },
    ],
    [
      { do: "drop-group", id: ID },
      { do: "drop-group", id: ID },
    ],
  ])("%j", (fields, step) => expect(read(fields)).toMatchObject(step));
  it.each<[Record<string, string | string[]>, object]>([
    [{ do: "shut-out", member: ID, to: "" }, { to: "Choose who takes over." }],
    [{ do: "shut-out", member: ID, to: "everybody" }, { to: "Choose who takes over." }],
    [
      { do: "group", name: " " },
      { name: "Give the group a name.", members: "Choose its members." },
    ],
    [{ do: "group", name: "x".repeat(61), members: ID }, { name: "A name has at most 60 characters." }],
    [{ do: "promote" }, { do: "That is nothing that can be done here." }],
  ])("%j is refused beside its field", (fields, problems) => expect(read(fields)).toEqual(problems));
});

describe("a newcomer", () => {
  const usual = { name: "Runa Holt", initials: "rh", signInName: "Runa", password: "a long password" };
  const read = async (fields: Record<string, string>) => {
    const newcomer = await readNewcomer(form({ ...usual, ...fields }));
    return newcomer.ok ? newcomer.value : newcomer.error;
  };
  it("is read with her initials and name as they are kept, and the zone of her clock", async () => {
    expect(await read({})).toMatchObject({ initials: "RH", signInName: "runa", timeZone: "UTC" });
    expect(await read({ timeZone: "Europe/Oslo" })).toMatchObject({ timeZone: "Europe/Oslo" });
  });
  it.each<[Record<string, string>, object]>([
    [{ name: " " }, { name: "Write your name as colleagues know you." }],
    [{ initials: "R" }, { initials: "Two or three letters." }],
    [{ initials: "R2" }, { initials: "Two or three letters." }],
    [{ signInName: "-x" }, { signInName: "Two to forty letters, digits, dots or dashes." }],
    [{ password: "short" }, { password: "At least 10 characters, spaces at its ends not counted." }],
    [{ password: " ".repeat(12) }, { password: "Choose a password; spaces alone are none." }],
    [{ password: "1234567890" }, { password: "This one is among the first that are tried; choose another." }],
    [{ password: "Runa Holt 77" }, { password: "Your own name is the first that is tried." }],
    [{ password: "" }, { password: "Choose a password." }],
  ])("%j is refused beside its field", async (fields, problems) => expect(await read(fields)).toEqual(problems));
  it("of a zone that there is not is refused", async () => {
    expect((await readNewcomer(form({ ...usual, timeZone: "Atlantis/Deep" }))).ok).toBe(false);
  });
});

describe("a posted step about what one is told", () => {
  const read = (fields: Record<string, string>) => {
    const step = readNotificationStep(form(fields));
    return step.ok ? step.value : step.error;
  };
  it.each<[Record<string, string>, object]>([
    [{ do: "read" }, { do: "read", id: null }],
    [
      { do: "read", id: ID },
      { do: "read", id: ID },
    ],
    [
      { do: "unwatch", id: ID },
      { do: "unwatch", id: ID },
    ],
    [
      { do: "watch", kind: "words", value: " blower hum " },
      { do: "watch", kind: "words", value: "blower hum" },
    ],
    [
      { do: "settings", "list-reply": "on", "browser-reply": "on", "quiet-from": "18:00", "quiet-to": "07:30" },
      { settings: { quiet: { from: 1_080, to: 450 }, digestAt: null } },
    ],
    [{ do: "settings", "digest-at": "08:15" }, { settings: { digestAt: 495, quiet: null } }],
  ])("%j", (fields, step) => expect(read(fields)).toMatchObject(step));
  it("what is not ticked is not told", () => {
    expect(read({ do: "settings", "list-reply": "on" })).toMatchObject({
      settings: { events: { reply: { list: true, browser: false }, assigned: { list: false } } },
    });
  });
  it.each<[Record<string, string>, object]>([
    [{ do: "watch", kind: "words", value: " " }, { value: "Say what is to be watched." }],
    [{ do: "watch", kind: "words", value: "x".repeat(201) }, { value: "At most 200 characters." }],
    [{ do: "settings", "quiet-from": "25:00" }, { "quiet-from": "Write a time as 08:30." }],
    [
      { do: "settings", "quiet-from": "18:00" },
      { "quiet-to": "Quiet hours have a beginning and an end; or leave both empty." },
    ],
    [{ do: "unwatch", id: "7" }, { id: "That is nothing that is watched." }],
    [{ do: "sing" }, { do: "That is nothing that can be done here." }],
  ])("%j is refused beside its field", (fields, problems) => expect(read(fields)).toEqual(problems));
});

it("a week is read as it is shown", () => {
  const week = [{ from: 510, to: 1_020 }, null, null, null, null, null, null];
  expect(weekView(week).slice(0, 2)).toEqual([{ from: "08:30", to: "17:00", pause: null }, null]);
  const problems: Record<string, string> = {};
  expect(readWeek(form({ "open-0": "on", "from-0": "08:30", "to-0": "17:00" }), problems)).toEqual(week);
  expect(problems).toEqual({});
  readWeek(form({ "open-1": "on", "from-1": "18:00", "to-1": "09:00" }), problems);
  expect(problems["day-1"]).toMatch(/closes before it opens/);
});
