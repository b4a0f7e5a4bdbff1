import { randomUUID } from "node:crypto";
import { demoServer } from "@tests/support/demo-server";
import { posted } from "@tests/support/posted";
import { rawClient } from "@tests/support/raw-client";
import { RIGHT_FORMS } from "@tests/support/right-forms";
import { beforeAll, describe, expect, it } from "vitest";

const FORM = { "content-type": "application/x-www-form-urlencoded" };

const running = demoServer({ SEND_HOLD_SECONDS: "100" });
const known: Record<string, string> = {};

beforeAll(async () => {
  const { db } = running();
  const one = async (sql: string) => String(Object.values((await db.query(sql)).rows[0] ?? {})[0]);
  const office = "tray_id = (select id from tray where slug = 'office')";
  known.conversation = await one(`select id from conversation where ${office} and standing = 'to-sort' limit 1`);
  known.message = await one(`select id from message where conversation_id = '${known.conversation}' limit 1`);
  known.member = await one("select id from member where sign_in_name = 'col'");
  known.category = await one("select id from category limit 1");
  known.record = await one("select id from record where closed_at is null and code like 'C-%' limit 1");
  known.code = await one(`select code from record where id = '${known.record}'`);
  known.type = await one("select id from record_type limit 1");
});

// How much there is of whatever a command may add to.
const COUNTED = [
  "journal",
  "message",
  "draft",
  "member_group",
  "category",
  "contact",
  "rule",
  "place",
  "record",
  "time_off",
  "invitation",
  "watch",
  "parcel",
];
async function counts(): Promise<Readonly<Record<string, number>>> {
  const { rows } = await running().db.query(
    `select ${COUNTED.map((table) => `(select count(*)::int from ${table}) as "${table}"`).join(", ")}`,
  );
  return rows[0];
}

const fill = (text: string) => text.replace(/\{(\w+)\}/g, (_, name: string) => known[name] ?? randomUUID());

function post(path: string, fields: Readonly<Record<string, string>>, command: string) {
  const body = new URLSearchParams(Object.entries(fields).map(([name, text]) => [name, fill(text)])).toString();
  return running().client.ownPage({ method: "POST", path: `${path}.data?command=${command}`, headers: FORM, body });
}

// What sends nobody away and takes nothing away that the others are about.
const SENT = RIGHT_FORMS.filter(([path]) => path.startsWith("/office/") && !path.includes("sign"));

// What a form does, in a word.
const stepOf = ({ decisions, do: step = "" }: Readonly<Record<string, string>>): string =>
  decisions === undefined ? step : JSON.parse(decisions)[0].kind;

describe("what was committed and whose answer got lost", () => {
  it.each(SENT.map(([path, fields]) => [path, stepOf(fields), fields] as const))(
    "is answered as the first time when it is sent again, and not done twice: %s %s",
    async (template, _kind, fields) => {
      const command = randomUUID();
      const path = fill(template);
      const first = await post(path, fields, command);
      const after = await counts();
      const again = await Promise.all([post(path, fields, command), post(path, fields, command)]);
      expect(await counts()).toEqual(after);
      for (const answer of again) expect(answer.status).toBe(first.status);
      if (first.status < 400) for (const answer of again) expect(answer.text).toBe(first.text);
    },
  );

  it("is done, of all kinds that add something", async () => {
    const before = await counts();
    for (const [path, fields] of SENT.filter(([, sent]) => ["note", "follow-up", "assign"].includes(stepOf(sent))))
      expect((await post(fill(path), fields, randomUUID())).status).toBe(200);
    const answer = { to: "a@x.example", cc: "", subject: "Re", html: "<p>Yes</p>", after: "keep", anyway: "on" };
    expect((await post(`/office/answer/${known.conversation}`, answer, randomUUID())).status).toBe(200);
    const after = await counts();
    expect((after.journal ?? 0) - (before.journal ?? 0)).toBeGreaterThanOrEqual(4);
    expect((after.message ?? 0) - (before.message ?? 0)).toBe(1);
  });

  it("two at once are one", async () => {
    const [command, note] = [
      randomUUID(),
      { ...posted({ kind: "note", text: "at once" }), conversation: "{conversation}" },
    ];
    const answers = await Promise.all(Array.from({ length: 5 }, () => post("/office/decide", note, command)));
    expect(new Set(answers.map(({ text }) => text)).size).toBe(1);
    const { rows } = await running().db.query("select from journal where effect->>'text' = 'at once'");
    expect(rows).toHaveLength(1);
  });

  it("is nobody else's answer, and needs an id that is one", async () => {
    const command = randomUUID();
    const note = { ...posted({ kind: "note", text: "mine" }), conversation: "{conversation}" };
    expect((await post("/office/decide", note, command)).status).toBe(200);
    const other = rawClient(running().server.httpPort);
    await other.comeIn("col");
    const body = new URLSearchParams({
      ...posted({ kind: "note", text: "hers" }),
      conversation: known.conversation ?? "",
    }).toString();
    const path = `/office/decide.data?command=${command}`;
    expect((await other.ownPage({ method: "POST", path, headers: FORM, body })).status).toBe(409);
    other.close();
    expect((await post("/office/decide", note, "1")).status).toBe(400);
  });

  it("that was refused can be sent again", async () => {
    const command = randomUUID();
    const note = (text: string) => ({ ...posted({ kind: "note", text }), conversation: "{conversation}" });
    expect((await post("/office/decide", note(""), command)).status).toBe(400);
    expect((await post("/office/decide", note("now with words"), command)).status).toBe(200);
  });
});
