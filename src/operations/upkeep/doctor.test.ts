import { DEMO_TEMPLATE } from "@tests/support/test-cluster";
import { type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { DOCKET } from "../../storage/facts/docket-columns";
import { type Diagnosis, examine, learnDecisions } from "../index.server";

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray(DEMO_TEMPLATE);
  tray.clock.now = Date.now() as typeof tray.clock.now;
  await learnDecisions(tray.deps);
}, 120_000);
afterAll(() => tray.close());

// What no docket of the demo has, by its column or the type of that; a member is one of those there are.
const OTHERWISE: Readonly<Record<string, string>> = {
  standing: "'resting'",
  turn: "case turn when 'us' then 'them' else 'us' end",
  timestamptz: "timestamptz '2001-02-03 04:05:06Z'",
  uuid: "(select id from member where id is distinct from owner_id limit 1)",
  "uuid[]": "array[gen_random_uuid()]",
  jsonb: `'["otherwise"]'`,
  smallint: "case urgency when 0 then 2 else 0 end",
};

/** Where each thing was made to be otherwise, and what the doctor should call it. */
type Planted = readonly (readonly [conversationId: string, what: string])[];

async function plantInDockets(): Promise<Planted> {
  const ids = (
    await tray.ask(`select id from conversation where joined_to is null and standing in ('our-move', 'settled')
      and not exists (select from follow_up where conversation_id = conversation.id)
      and not exists (select from filed_part where conversation_id = conversation.id) order by id`)
  ).map(({ id }) => id as string);
  const planted: (readonly [string, string])[] = [];
  for (const [at, [name, { kind }]] of Object.entries(DOCKET).entries()) {
    const id = ids[at];
    if (id === undefined) throw new Error("the demo has too few conversations");
    await tray.ask(`update conversation set ${name} = ${OTHERWISE[name] ?? OTHERWISE[kind]} where id = $1`, [id]);
    planted.push([id, name]);
  }
  const [due] = await tray.ask(
    "update follow_up set due_at = due_at + interval '1 hour' where id = (select id from follow_up where due_at is not null order by id limit 1) returning conversation_id",
  );
  const filed = ids[planted.length + 1] ?? "";
  await tray.ask(
    `insert into filed_part (record_id, message_id, attachment, conversation_id, filed_at)
     select (select id from record limit 1), id, -1, conversation_id, now() from message where conversation_id = $1 limit 1`,
    [filed],
  );
  const unlearned = ids[planted.length] ?? "";
  await tray.ask("update filing_lesson set labels = '{x}' where conversation_id = $1", [unlearned]);
  return [...planted, [due.conversation_id, "followUps"], [filed, "filedParts"], [unlearned, "learned"]];
}

const foundIn = ({ differences }: Diagnosis): Planted =>
  differences.flatMap(({ conversationId, columns }) =>
    Object.keys(columns).map((column) => [conversationId, column] as const),
  );
const sorted = (planted: Planted) => planted.map((one) => one.join(" ")).toSorted();

it("finds the demo's world healthy, and then whatever was made to be otherwise, each by its name", async () => {
  const before = await examine(tray.deps);
  expect(before).toMatchObject({
    differences: [],
    totalsAstray: 0,
    recordsAstray: 0,
    countsAstray: 0,
    lostCategories: 0,
  });
  expect(before.conversations).toBeGreaterThan(100);
  const planted = await plantInDockets();
  expect(sorted(foundIn(await examine(tray.deps)))).toEqual(sorted(planted));
});

let touched = 0;
it.each([
  ["how many messages there are", "update conversation set message_count = message_count + 1", "totalsAstray"],
  [
    "when the last came",
    "update conversation set last_message_at = last_message_at - interval '1 day'",
    "totalsAstray",
  ],
  [
    "when the last of theirs came",
    "update conversation set last_in_at = last_in_at - interval '1 day'",
    "totalsAstray",
  ],
  ["whether files came", "update conversation set has_attachment = not has_attachment", "totalsAstray"],
  ["who may know of a record", "update record set viewers = array[(select id from member limit 1)]", "recordsAstray"],
  ["the words of a title", "update record set title_words = '{w:otherwise}'", "recordsAstray"],
  ["what proposals rest on", "update filing_owner set given = given + 1", "countsAstray"],
] as const)("finds a difference in %s", async (_, plant, field) => {
  const before = await examine(tray.deps);
  // Each in a row of its own.
  const table = plant.split(" ")[1];
  const plain = table === "conversation" ? "where joined_to is null and last_in_at is not null" : "";
  const rows = await tray.ask(`select ctid::text as at from ${table} ${plain} order by ${table}::text`);
  touched += 1;
  await tray.ask(`${plant} where ctid = $1::tid`, [rows[touched]?.at]);
  const after = await examine(tray.deps);
  expect(after[field]).toBe(before[field] + 1);
  expect(after.healthy).toBe(false);
});
