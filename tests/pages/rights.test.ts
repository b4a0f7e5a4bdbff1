import { aMessage } from "@tests/support/mail";
import { refusalOf, type Visitor, visitor } from "@tests/support/pages";
import { posted } from "@tests/support/posted";
import { A_RULE, A_TEMPLATE, AN_ANSWER } from "@tests/support/right-forms";
import { everyPlace } from "@tests/support/site-map";
import { address, type Office, setUpOffice, setUpParts, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type DraftId, trustedId } from "~/core/kernel/ids";
import { DAY, later } from "~/core/kernel/instant";
import {
  decide,
  editAnswer,
  editRule,
  editTemplate,
  planLetter,
  receiveMessage,
  setUpCategories,
  setUpRecords,
  type TrayGrant,
} from "~/operations/index.server";

// Whatever the site map has is asked here: a route that is in no table of this file fails it.

const places = await everyPlace();
const inTray = places.filter(({ path }) => path.startsWith("/:tray/"));
const modules: Readonly<Record<string, () => Promise<Record<string, unknown>>>> = import.meta.glob<
  Record<string, unknown>
>("/src/web/routes/*/*.{ts,tsx}");
const moduleOf = async (file: string) => (await modules[`/src/web/${file}`]?.()) ?? {};
const called = (file: string) => file.slice(file.lastIndexOf("/") + 1).replace(/\.tsx?$/, "");

let tray: TestTray;
let office: Office;
let reader: Visitor;
let stranger: Visitor;
let strangerGrant: TrayGrant;
const SOME_ID = "01900000-0000-7000-8000-000000000000";
const ids = {
  conversation: "",
  other: "",
  message: "",
  category: "",
  note: "",
  rule: "",
  answer: "",
  template: "",
  letter: SOME_ID,
};

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const { col, grant } = await setUpParts(tray.deps);
  strangerGrant = grant;
  stranger = visitor(tray.deps, col, grant);
  reader = visitor(tray.deps, { ...office.ines, id: office.reader.memberId }, office.reader);
  const arrive = async (id: string) => {
    const raw = aMessage({ id, subject: `Letter ${id}` });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    return kept?.conversationId ?? "";
  };
  ids.conversation = await arrive("one@x.example");
  ids.other = await arrive("two@x.example");
  const target = { ids: [trustedId<ConversationId>(ids.conversation)], seenVersion: null };
  await decide(tray.deps, office.grant, target, { kind: "note", text: "for us" });
  ids.note = (await tray.ask("select id from journal where kind = 'noted'"))[0].id;
  ids.message = (await tray.ask("select id from message where conversation_id = $1", [ids.conversation]))[0].id;
  const [category] = await setUpCategories(tray.deps, [{ code: "TU", name: "Tuning", ink: "moss", parentCode: null }]);
  ids.category = category?.id ?? "";
  await tray.ask("update category set tray_id = $1", [office.grant.tray.id]);
  const lead = { ...office.grant, role: "lead" as const };
  const answer = await editAnswer(tray.deps, lead, {
    ...{ id: null, name: "Whatever", isOn: false, from: null, until: null, trigger: { kind: "always" } },
    texts: [{ condition: { kind: "every" }, text: "We have it.", copiesCover: false }],
    pace: { kind: "each" },
  });
  ids.answer = answer.ok ? answer.value : "";
  const template = await editTemplate(tray.deps, lead, A_TEMPLATE);
  ids.template = template.ok ? template.value : "";
  const letter = await planLetter(tray.deps, office.grant, {
    ...{ id: trustedId<DraftId>(ids.letter), conversationId: trustedId<ConversationId>(ids.other) },
    answer: {
      to: [{ name: "", address: address("vane@vanehouse.example") }],
      ...{ cc: [], subject: "Re", html: "<p>On Monday.</p>", after: { kind: "keep" } },
    },
    plan: { moments: [later(tray.clock.now, DAY)], ifSilent: false, untilSettled: false },
    content: { to: "vane@vanehouse.example", cc: "", subject: "Re", html: "<p>On Monday.</p>", after: "keep", day: "" },
  });
  if (!letter.ok) throw new Error(letter.error.kind);
  const kept = await editRule(tray.deps, lead, {
    id: null,
    name: "Whatever",
    isOn: false,
    isLast: false,
    condition: { kind: "verified", is: true },
    exception: null,
    actions: [{ kind: "settle" }],
  });
  ids.rule = kept.ok ? kept.value : "";
  await setUpRecords(tray.deps, [{ code: "C-1", title: "A house", kind: "client", parentCode: null, closed: false }]);
});
afterAll(() => tray.close());

// What anybody could keep who may keep rules at all.
const RULE = {
  ...A_RULE,
  condition: { kind: "verified", is: true },
  actions: [{ kind: "urgency", urgency: "today" }],
};

/** What a post is made of; what it is refused with, or that it is somebody's own affair. */
type Posting = {
  readonly fields?: () => Readonly<Record<string, string>>;
  readonly params?: () => Readonly<Record<string, string>>;
  /** Nobody else sees what it changes: what one has read, how one likes things. */
  readonly isOwn?: true;
};

const ofMessage = () => ({ message: ids.message });
const POSTINGS: Readonly<Record<string, Posting>> = {
  account: { isOwn: true },
  answer: {
    params: () => ({ conversation: ids.conversation }),
    fields: () => ({ to: "vane@vanehouse.example", cc: "", subject: "Re", html: "<p>Yes.</p>", after: "settle" }),
  },
  categories: { fields: () => ({ do: "create", name: "New", ink: "moss" }) },
  "categories-import": { fields: () => ({ do: "import", table: "path\nNew" }) },
  "rules-import": { fields: () => ({ do: "import", table: "discard;" }) },
  decide: { fields: () => ({ ...posted({ kind: "settle" }), conversation: ids.conversation }) },
  import: { fields: () => ({ cancel: SOME_ID }) },
  "import-upload": {},
  join: { params: () => ({ conversation: ids.conversation }), fields: () => ({ other: ids.other }) },
  "junk-sender": { fields: () => ({ address: "vane@vanehouse.example", junk: "true" }) },
  unsubscribe: { params: ofMessage },
  overview: { fields: () => ({ id: SOME_ID }) },
  "remote-images": { params: ofMessage },
  "shown-part": { params: ofMessage, fields: () => ({ part: "html" }), isOwn: true },
  "run-conversation": { params: () => ({ conversation: ids.conversation }), isOwn: true },
  "send-again": { params: ofMessage },
  "as-new": { params: ofMessage },
  "send-to": { params: ofMessage, fields: () => ({ address: "vane@x.example" }) },
  settings: { fields: () => ({ name: "after-decision", value: '"list"' }), isOwn: true },
  shelf: { fields: () => ({ do: "pin", kind: "category", target: ids.category, forAll: "false" }), isOwn: true },
  "split-off": { params: ofMessage, fields: () => ({ conversation: ids.conversation }) },
  "stop-run": { fields: () => ({ run: SOME_ID }) },
  recall: { params: ofMessage },
  "tray-settings": {
    fields: () => ({
      "open-0": "on",
      "from-0": "08:00",
      "to-0": "17:00",
      holidays: "",
      "answer-within": "16",
    }),
  },
  "bin-and-junk": { fields: () => ({ "bin-days": "3" }) },
  away: { fields: () => ({ do: "plan", member: office.ines.id, from: "2027-01-04", to: "2027-01-08" }) },
  drafts: {
    params: () => ({ conversation: ids.conversation }),
    fields: () => ({ do: "hand", member: office.ines.id, html: "<p>Yes.</p>" }),
  },
  "own-draft": {
    params: () => ({ draft: SOME_ID }),
    fields: () => ({
      do: "keep",
      draft: JSON.stringify({ to: "", cc: "", subject: "", html: "<p>Yes.</p>", after: "keep", day: "" }),
    }),
  },
  "going-later": { fields: () => ({ do: "call-off", id: ids.letter }) },
  "edit-note": { params: () => ({ conversation: ids.conversation, entry: ids.note }), fields: () => ({ text: "no" }) },
  "rule-history": { params: () => ({ rule: ids.rule }), fields: () => ({ do: "undo", version: "1", since: "" }) },
  rules: { fields: () => ({ do: "keep", rule: JSON.stringify(RULE) }) },
  "automatic-answers": { fields: () => ({ do: "keep", answer: JSON.stringify(AN_ANSWER) }) },
  templates: { fields: () => ({ do: "keep", template: JSON.stringify({ ...A_TEMPLATE, name: "Another" }) }) },
  rounds: { fields: () => ({ do: "keep", id: "", name: "Mass mail", times: "11:00" }) },
  contacts: { fields: () => ({ do: "keep", name: "Col", addresses: "col@x.example" }) },
  reminders: { fields: () => ({ do: "call-off", conversation: ids.conversation }) },
  "loose-ends": { fields: () => ({ do: "dismiss", conversation: ids.conversation, kind: "nobodys", reason: "x" }) },
  members: { fields: () => ({ do: "invite", role: "lead" }) },
  notifications: { fields: () => ({ do: "read" }), isOwn: true },
  "draft-attachments": { fields: () => ({ code: "C-1", name: "x", sha256: "0".repeat(64) }) },
  "zip-exports": { fields: () => ({ do: "order", code: "C-1" }), isOwn: true },
  presence: {
    params: () => ({ conversation: ids.conversation }),
    fields: () => ({ page: SOME_ID, doing: "looking" }),
    isOwn: true,
  },
  "absence-summary": { params: () => ({ timeOff: SOME_ID }), isOwn: true },
  "text-suggestions": { fields: () => ({ text: "Is it dry?" }), isOwn: true },
  records: { fields: () => ({ do: "keep", type: SOME_ID, title: "New" }) },
  record: { params: () => ({ code: "C-1" }), fields: () => ({ do: "close" }) },
  write: {
    fields: () => ({ record: SOME_ID, to: "a@x.example", subject: "New", html: "<p>Yes.</p>", after: "keep" }),
  },
  "record-documents": { params: () => ({ code: "C-1" }), fields: () => ({ do: "remove", document: SOME_ID }) },
  arrangement: { fields: () => ({ do: "keep", tree: "[]", version: "0" }), isOwn: true },
  retention: { fields: () => ({ do: "hold", record: SOME_ID, reason: "x" }) },
  "records-import": { fields: () => ({ do: "import", table: "title,type\nNew,Client" }) },
  "record-types": { fields: () => ({ name: "Case", codePattern: "K-{nn}", fields: "[]" }) },
  "advance-clock": { fields: () => ({ span: "hour" }) },
  undo: { fields: () => ({ batch: SOME_ID }) },
  "unread-from": { params: ofMessage, fields: () => ({ list: "/office/to-sort" }), isOwn: true },
};

/** Pages about one thing of a tray, with the thing as its address names it. */
const LOOKS: Readonly<Record<string, () => Readonly<Record<string, string>>>> = {
  attachment: () => ({ message: ids.message, index: "0" }),
  "attachments-zip": ofMessage,
  category: () => ({ category: ids.category }),
  conversation: () => ({ conversation: ids.conversation }),
  "call-script": () => ({ conversation: ids.conversation }),
  "assignee-suggestions": () => ({ conversation: ids.conversation }),
  "message-rules": ofMessage,
  "message-text": () => ({ message: ids.message }),
  "possible-parent": () => ({ conversation: ids.conversation }),
  presence: () => ({ conversation: ids.conversation }),
  "absence-summary": () => ({ timeOff: SOME_ID }),
  export: () => ({ what: ids.conversation }),
  "zip-export": () => ({ zipExport: SOME_ID }),
  "message-html": ofMessage,
  "message-raw": ofMessage,
  rule: () => ({ rule: ids.rule }),
  "rule-history": () => ({ rule: ids.rule }),
  "automatic-answer": () => ({ answer: ids.answer }),
  template: () => ({ template: ids.template }),
  "used-template": () => ({ template: ids.template }),
  "run-conversation": () => ({ conversation: ids.conversation }),
};
/** Pages with a part in their address that is a name everybody knows, or a record, which is common to all trays. */
const NAMED = ["join", "list-data", "record", "record-document", "sort-run", "standing"];

describe("the rights to a tray", () => {
  it("are asked for every page and every post below its address, by one gate", async () => {
    const outside = places.filter(({ path }) => !path.startsWith("/:tray"));
    expect(outside.map(({ file }) => called(file)).toSorted()).toEqual([
      "home",
      "invite",
      "sign-in",
      "sign-out",
      "signed-in",
    ]);
    expect(inTray.filter(({ above }) => !above.includes("routes/shell/tray.tsx"))).toEqual([]);
    const { middleware } = await moduleOf("routes/shell/tray.tsx");
    const [gate] = middleware as ((args: never) => unknown)[];
    const knock = (grants: readonly TrayGrant[], slug: string) =>
      refusalOf(
        (async () => {
          const { RouterContextProvider } = await import("react-router");
          const { grantsContext, liveContext } = await import("~/web/server/base/context.server");
          const context = new RouterContextProvider();
          context.set(grantsContext, grants);
          context.set(liveContext, { state: () => "" } as never);
          await gate?.({ params: { tray: slug }, context } as never);
        })(),
      );
    expect(await knock([strangerGrant], "office")).toBe(404);
    expect(await knock([strangerGrant], "parts")).toBe(200);
    expect(await knock([], "parts")).toBe(404);
  });

  it("let a reader change nothing, whatever is posted", async () => {
    const acting: string[] = [];
    for (const { file } of inTray) if (typeof (await moduleOf(file)).action === "function") acting.push(file);
    expect([...new Set(acting.map(called))].toSorted()).toEqual(Object.keys(POSTINGS).toSorted());
    const before = await everything();
    for (const file of new Set(acting)) {
      const { isOwn, fields, params } = POSTINGS[called(file)] ?? {};
      if (isOwn === true) continue;
      const action = (await moduleOf(file)).action as (args: never) => unknown;
      const { status, data } = await reader.posts(action, fields?.() ?? {}, params?.() ?? {});
      expect
        .soft([status >= 400, JSON.stringify(data)], called(file))
        .toEqual([true, expect.stringMatching(/You may only read this tray|is for its members|those who lead/)]);
    }
    expect(await everything()).toEqual(before);
  });

  it("show a member of another tray nothing of this one", async () => {
    const things = inTray.filter(({ path }) => path.replace("/:tray/", "").includes(":"));
    const looking: string[] = [];
    for (const { file } of things) if (typeof (await moduleOf(file)).loader === "function") looking.push(called(file));
    expect([...new Set(looking)].toSorted()).toEqual([...Object.keys(LOOKS), ...NAMED].toSorted());
    for (const [name, params] of Object.entries(LOOKS)) {
      const file = things.find((one) => called(one.file) === name)?.file ?? "";
      const loader = (await moduleOf(file)).loader as (args: never) => unknown;
      expect.soft(await refusalOf(Promise.resolve(stranger.looksAt(loader, params()))), name).toBe(404);
    }
  });
});

/** What is kept of everything that more than one person sees. */
const everything = async () => {
  const tables = ["conversation", "journal", "category", "category_step", "message", "tray", "junk_sender", "bulk_run"];
  const states = [
    ...tables,
    "import_run",
    "remote_content_sender",
    "place",
    "saved_view",
    "draft",
    "later_letter",
    "time_off",
    "cover",
    "invitation",
    "member",
    "tray_member",
    "member_group",
    "watch",
    "notification",
    "rule",
    "template",
    "contact",
    "contact_address",
    "record",
    "record_type",
    "record_address",
    "record_step",
    "record_series",
  ].map(
    (table) =>
      `select '${table}' as name, md5(string_agg(md5(kept::text), '' order by md5(kept::text))) as state from ${table} as kept`,
  );
  return tray.ask(states.join(" union all "));
};
