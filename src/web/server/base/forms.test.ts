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
const read = (fields: Record<string, string | string[]>) =>
  readDecision(form({ conversation: ID, ...fields }), () => ID);
// As one decision, which all but those that are accepted together are.
const decision = (fields: Record<string, string | string[]>) => {
  const posted = read(fields);
  return posted.ok ? { ok: true as const, value: { ...posted.value, decision: posted.value.decisions[0] } } : posted;
};

describe("a posted decision", () => {
  it.each<[Record<string, string>, object]>([
    [
      { kind: "settle", version: "3" },
      { target: { ids: [ID], seenVersion: 3 }, decision: { kind: "settle" } },
    ],
    [{ kind: "assign", owner: "" }, { decision: { kind: "assign", ownerId: null } }],
    [
      { kind: "categorise", category: ID, give: "false" },
      { decision: { kind: "categorise", categoryId: ID, give: false } },
    ],
    [
      { kind: "file", record: ID, settle: "true", code: "P-26-012" },
      { decision: { kind: "file", recordId: ID, settle: true } },
    ],
    [{ kind: "rest", at: "2026-07-01T07:00:00.000Z" }, { decision: { kind: "rest", until: Date.UTC(2026, 6, 1, 7) } }],
    [
      { kind: "rest", at: "2026-07-01T07:00:00.000Z", mode: "time" },
      { decision: { kind: "rest", evenIfAnswered: true } },
    ],
    [{ kind: "rest", at: "" }, { decision: { kind: "rest", until: null } }],
    [{ kind: "expect", at: "" }, { decision: { kind: "expect", until: null, expectationId: ID } }],
    [{ kind: "urgency", urgency: "today" }, { decision: { kind: "urgency", urgency: "today" } }],
    [
      { kind: "follow-up", at: "", member: ID, text: " ring " },
      { decision: { kind: "follow-up", forMember: ID, dueAt: null, text: "ring" } },
    ],
    [{ kind: "follow-up-done", followUp: ID }, { decision: { kind: "follow-up-done", followUpId: ID } }],
    [{ kind: "follow-up-clear", followUp: ID }, { decision: { kind: "follow-up-clear", followUpId: ID } }],
    [
      { kind: "settle", scope: "to-sort", query: "owner=none", lane: "d0", said: "Settled" },
      { list: { scope: "to-sort", query: "owner=none", lane: "d0" }, said: "Settled" },
    ],
    [{ kind: "note", text: " ask Col " }, { decision: { kind: "note", text: "ask Col" } }],
  ])("%j is read", (fields, value) => expect(decision(fields)).toMatchObject({ ok: true, value }));

  it("of several that are accepted together is each of them, in their order", () => {
    const decisions = [{ kind: "categorise", category: ID, give: "true" }, { kind: "settle" }];
    expect(read({ kind: "accept", decisions: JSON.stringify(decisions), version: "4" })).toMatchObject({
      ok: true,
      value: {
        target: { ids: [ID], seenVersion: 4 },
        decisions: [{ kind: "categorise", categoryId: ID, give: true }, { kind: "settle" }],
      },
    });
  });

  it.each([
    "",
    "[]",
    "{}",
    "[1]",
    '[{"kind":"accept"}]',
    '[{"kind":"explode"}]',
    '[{"kind":"assign"}]',
    JSON.stringify(Array.from({ length: 11 }, () => ({ kind: "settle" }))),
  ])("of several is refused as %.30s", (decisions) => expect(read({ kind: "accept", decisions }).ok).toBe(false));

  it("of several is about conversations, not about a list", () => {
    const decisions = JSON.stringify([{ kind: "settle" }, { kind: "keep" }]);
    expect(read({ kind: "accept", decisions, scope: "to-sort" }).ok).toBe(false);
  });

  it.each<[Record<string, string | string[]>, string]>([
    [{ kind: "explode" }, "nothing one can decide"],
    [{ kind: "toString" }, "nothing one can decide"],
    [{ kind: "settle", conversation: "1" }, "nothing that can be found here"],
    [{ kind: "settle", conversation: [] }, "Nothing is selected"],
    [{ kind: "assign", owner: "tobias" }, "nothing that can be found here"],
    [{ kind: "file" }, "required"],
    [{ kind: "rest", at: "", mode: "time" }, "choose a date"],
    [{ kind: "rest", at: "soon" }, "That is no date"],
    [{ kind: "urgency", urgency: "very" }, "must be one of"],
    [{ kind: "follow-up", at: "", member: "me" }, "nothing that can be found here"],
    [{ kind: "note", text: "  " }, "Write something first."],
    [{ kind: "settle", version: "one" }, "must be a number"],
  ])("%j is refused", (fields, words) => {
    const read = decision(fields);
    expect(read.ok ? "" : read.error).toContain(words);
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
