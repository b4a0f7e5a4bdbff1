import { describe, expect, it } from "vitest";
import { readDecision } from "../deciding/decision-form.server";
import { readSignIn } from "../people/sign-in-form.server";
import { readAnswer } from "../writing/answer-form.server";
import { download } from "./download.server";
import { safeNext } from "./safe-next";
import type { Place } from "./site-map.server";

const ID = "019aa5b0-0000-7000-8000-000000000001";
const form = (fields: Record<string, string | string[]>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) for (const one of [value].flat()) data.append(name, one);
  return data;
};
type About = Record<string, string | string[]>;
const readAll = (decisions: unknown, about: About = {}) =>
  readDecision(form({ conversation: ID, decisions: JSON.stringify(decisions), ...about }), () => ID);
const read = (decision: object, about: About = {}) => readAll([decision], about);

describe("a posted decision", () => {
  const JULY = Date.UTC(2026, 6, 1, 7);
  it.each<[object, object]>([
    [{ kind: "settle" }, { kind: "settle" }],
    [
      { kind: "assign", ownerId: null },
      { kind: "assign", ownerId: null },
    ],
    [
      { kind: "assign", ownerId: ID, note: " the key " },
      { kind: "assign", ownerId: ID, note: "the key" },
    ],
    [
      { kind: "assign", ownerId: ID, evenIfAway: true },
      { kind: "assign", ownerId: ID, evenIfAway: true },
    ],
    [
      { kind: "assign-in-turn", groupId: ID },
      { kind: "assign-in-turn", groupId: ID },
    ],
    [
      { kind: "follow", memberId: ID, follows: false },
      { kind: "follow", memberId: ID, follows: false },
    ],
    [
      { kind: "categorise", categoryId: ID, give: false, called: "Tuning" },
      { kind: "categorise", categoryId: ID, give: false },
    ],
    [
      { kind: "file", recordId: ID, settle: true, called: "P-26-012" },
      { kind: "file", recordId: ID, settle: true, means: "picker" },
    ],
    [
      { kind: "file", recordId: ID, settle: false, means: "shelf", fields: { k: "bill" } },
      { kind: "file", recordId: ID, settle: false, means: "shelf", fields: { k: "bill" } },
    ],
    [
      { kind: "unfile", recordId: ID, part: { messageId: ID, attachment: null } },
      { kind: "unfile", recordId: ID, part: { messageId: ID, attachment: null } },
    ],
    [
      { kind: "rest", until: JULY },
      { kind: "rest", until: JULY },
    ],
    [
      { kind: "rest", until: JULY, evenIfAnswered: true },
      { kind: "rest", until: JULY, evenIfAnswered: true },
    ],
    [
      { kind: "rest", until: null },
      { kind: "rest", until: null },
    ],
    [
      { kind: "expect", until: null },
      { kind: "expect", until: null, expectationId: ID },
    ],
    [
      { kind: "urgency", urgency: "today" },
      { kind: "urgency", urgency: "today" },
    ],
    [
      { kind: "follow-up", dueAt: null, forMember: ID, text: " ring " },
      { kind: "follow-up", forMember: ID, dueAt: null, text: "ring", followUpId: ID },
    ],
    [
      { kind: "follow-up-done", followUpId: ID },
      { kind: "follow-up-done", followUpId: ID },
    ],
    [
      { kind: "note", text: " ask Col ", mentions: [ID] },
      { kind: "note", text: "ask Col" },
    ],
  ])("%j is read", (posted, decision) =>
    expect(read(posted)).toMatchObject({ ok: true, value: { decisions: [decision] } }),
  );

  it("has nothing that nobody chooses: whom a note names, by which id, what was filed elsewhere", () => {
    const note = read({ kind: "note", text: "x", mentions: [ID] });
    expect(note.ok && note.value.decisions[0]).toEqual({ kind: "note", text: "x" });
    const other = "019aa5b0-0000-7000-8000-000000000002";
    const expected = read({ kind: "expect", until: null, expectationId: other });
    expect(expected.ok && expected.value.decisions[0]).toMatchObject({ expectationId: ID });
    const earlier = { by: "me", at: 1, how: "x" };
    expect(read({ kind: "file", recordId: ID, settle: false, earlier }).ok).toBe(false);
  });

  it("is about conversations as they were seen, or about a list", () => {
    expect(read({ kind: "settle" }, { version: "3" })).toMatchObject({
      ok: true,
      value: { target: { ids: [ID], seenVersion: 3 }, list: null },
    });
    expect(read({ kind: "note", text: "@Col" }, { said: "" }).ok).toBe(true);
    const list = { scope: "to-sort", query: "owner=none", lane: "d0" };
    expect(read({ kind: "settle" }, { ...list, said: "Settled" })).toMatchObject({
      ok: true,
      value: { list, said: "Settled" },
    });
  });

  it("of several that are accepted together is each of them, in their order", () => {
    const decisions = [{ kind: "categorise", categoryId: ID, give: true }, { kind: "settle" }];
    expect(readAll(decisions, { version: "4" })).toMatchObject({
      ok: true,
      value: { target: { ids: [ID], seenVersion: 4 }, decisions },
    });
  });

  it.each([
    ["no JSON", "{"],
    ["nothing", "[]"],
    ["one that stands alone", '{"kind":"settle"}'],
    ["a number", "[1]"],
    ["what is no kind", '[{"kind":"accept"}]'],
    ["a kind of every object", '[{"kind":"toString"}]'],
    ["a kind of an own place", '[{"kind":"edit-note","text":"x"}]'],
    ["one without its fields", '[{"kind":"assign"}]'],
    ["too many", JSON.stringify(Array.from({ length: 11 }, () => ({ kind: "settle" })))],
  ])("is refused where it is %s", (_, decisions) => {
    expect(readDecision(form({ conversation: ID, decisions }), () => ID).ok).toBe(false);
  });

  it("of several at once is about one conversation, not about a list", () => {
    const decisions = [{ kind: "categorise", categoryId: ID, give: true }, { kind: "settle" }];
    expect(readAll(decisions, { scope: "to-sort" }).ok).toBe(false);
  });

  it.each<[object, About, string]>([
    [{ kind: "explode" }, {}, "nothing one can decide"],
    [{ kind: "settle" }, { conversation: "1" }, "nothing that can be found here"],
    [{ kind: "settle" }, { conversation: [] }, "Nothing is selected"],
    [{ kind: "settle" }, { version: "one" }, "must be a number"],
    [{ kind: "assign", ownerId: "tobias" }, {}, "nothing that can be found here"],
    [{ kind: "assign", ownerId: ID, note: "x".repeat(10_001) }, {}, "A note has at most 10000 characters."],
    [{ kind: "file" }, {}, "required"],
    [{ kind: "rest", until: null, evenIfAnswered: true }, {}, "choose a date"],
    [{ kind: "rest", until: "soon" }, {}, "That is no date"],
    [{ kind: "urgency", urgency: "very" }, {}, "must be one of"],
    [{ kind: "follow-up", dueAt: null, forMember: "me", text: "" }, {}, "nothing that can be found here"],
    [{ kind: "note", text: "  " }, {}, "Write something first."],
  ])("%j is refused", (posted, about, words) => {
    const refused = read(posted, about);
    expect(refused.ok ? "" : refused.error).toContain(words);
  });
});

describe("a posted answer", () => {
  const right = {
    to: "Vane <vane@x.example>",
    cc: "",
    subject: "Re: Visit",
    html: "<p>Yes.</p>",
    after: "expect",
    day: "2026-12-01",
  };
  it("is read with its recipients and the end of the day", () => {
    expect(readAnswer(form(right), "UTC")).toMatchObject({
      ok: true,
      value: {
        to: [{ name: "Vane", address: "vane@x.example" }],
        after: { kind: "expect", until: Date.UTC(2026, 11, 2) - 1 },
      },
    });
  });
  it("is awaited by a moment where a time is named", () => {
    const read = readAnswer(form({ ...right, day: "2026-12-01T12:00:00.000Z" }), "UTC");
    expect(read).toMatchObject({ value: { after: { until: Date.UTC(2026, 11, 1, 12) } } });
  });
  it.each([
    ["to", "", "fill in To"],
    ["to", "vane", "Not an address: vane"],
    ["cc", "col@, dean@x.example", "Not an address: col@"],
    ["subject", " ", "Give it a subject"],
    ["subject", "a\nBcc: all@x.example", "A subject is one line"],
    ["html", "<p>&nbsp;</p>", "Write something first"],
    ["day", "2026-02-30", "no day of the calendar"],
    ["day", "2026-12-01T25:00:00Z", "no day of the calendar"],
  ])("with %s %j says what is wrong beside it", (field, value, words) => {
    const read = readAnswer(form({ ...right, [field]: value }), "UTC");
    expect(read.ok ? "" : read.error[field as keyof typeof read.error]).toContain(words);
  });
});

describe("signing in", () => {
  it("takes a name with a password, or a colleague of the demo", () => {
    expect(readSignIn(form({ name: " ines ", password: "x" }))).toEqual({
      ok: true,
      value: { name: "ines", password: "x" },
    });
    expect(readSignIn(form({ colleague: "ines" }))).toEqual({ ok: true, value: { name: "ines", password: null } });
    expect(readSignIn(form({ name: "", password: "" }))).toEqual({
      ok: false,
      error: { name: "Write your sign-in name.", password: "Write your password." },
    });
  });
  it.each([
    ["/office/to-sort?pages=2", "/office/to-sort?pages=2"],
    ["/office/to-sort?q=a%20b", "/office/to-sort?q=a%20b"],
    ["/office/nowhere", "/"],
    ["/office/decide", "/"],
    ["//evil.example", "/"],
    ["/\\evil.example", "/"],
    ["/\t/evil.example", "/"],
    ["/\n/evil.example", "/"],
    ["/%09/evil.example", "/"],
    ["/%0A/evil.example", "/"],
    ["/.//evil.example", "/"],
    ["/office/..//evil.example", "/"],
    ["https://evil.example", "/"],
    ["javascript:alert(1)", "/"],
    ["", "/"],
    [null, "/"],
  ])("goes on to %j as %j", (next, path) => {
    const page = { routeId: "routes/list/standing", methods: ["GET", "HEAD"] };
    const decide = { routeId: "routes/deciding/decide", methods: ["POST"] };
    const places: Readonly<Record<string, Place>> = { "/office/to-sort": page, "/office/decide": decide };
    // As a tray of any name is one: what is thought to be a path matches it.
    const anyTray = (pathname: string) => (/^\/+[^/]+\/evil\.example$/.test(pathname) ? page : null);
    expect(safeNext(next, (pathname) => places[pathname] ?? anyTray(pathname))).toBe(path);
  });
});

it.each([
  ["text/plain; charset=utf-8", "text/plain; charset=utf-8"],
  ["text/plain\r\nSet-Cookie: a=b", "application/octet-stream"],
  ["application/überweisung", "application/octet-stream"],
  ["application/\u0001", "application/octet-stream"],
  ["", "application/octet-stream"],
])("a download of type %j goes out as %j", (given, said) => {
  expect(download(new Uint8Array(), "half \ud83d.txt", given).headers.get("content-type")).toBe(said);
});

it("a download says its name in every alphabet and is shown nowhere", () => {
  const headers = download(new Uint8Array(), 'Grüße "1".pdf', "application/pdf").headers;
  expect(headers.get("content-disposition")).toBe(
    "attachment; filename=\"Gr__e _1_.pdf\"; filename*=UTF-8''Gr%C3%BC%C3%9Fe%20%221%22.pdf",
  );
  expect(headers.get("x-content-type-options")).toBe("nosniff");
});
