import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { type TestTray, testTray } from "@tests/support/test-database";
import fc from "fast-check";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import {
  bearPolicy,
  closeRecord,
  createRecord,
  disposeOf,
  editPolicy,
  examine,
  getTypes,
  holdRecord,
  lookAtRetention,
  previewDisposal,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

/** A record as it is drawn: how long it is kept, when it was closed, what it stands under, whether something holds it. */
type Drawn = {
  readonly keptDays: number | null;
  readonly closedDaysAgo: number | null;
  readonly under: number;
  readonly isHeld: boolean;
};
/** On which records a conversation is. */
type Filed = { readonly on: readonly number[] };

const RECORDS = 6;
const aRecord = fc.record<Drawn>({
  keptDays: fc.option(fc.integer({ min: 1, max: 60 }), { freq: 5 }),
  closedDaysAgo: fc.option(fc.integer({ min: 1, max: 60 }), { freq: 5 }),
  under: fc.integer({ min: 0, max: 3 * RECORDS }),
  isHeld: fc.integer({ min: 0, max: 5 }).map((drawn) => drawn === 0),
});
const aConversation = fc.record<Filed>({
  on: fc.uniqueArray(fc.integer({ min: 0, max: RECORDS - 1 }), { minLength: 1, maxLength: 2 }),
});
const aRegister = fc.record({
  records: fc.array(aRecord, { minLength: RECORDS, maxLength: RECORDS }),
  conversations: fc.array(aConversation, { maxLength: 6 }),
});

/** The slow way: goes through everything again and again until nothing more goes. */
function whatIsLeft(records: readonly Drawn[], conversations: readonly Filed[]) {
  const parentOf = (at: number) => {
    const under = records[at]?.under ?? at;
    return under < at ? under : null;
  };
  const isHeld = (at: number | null): boolean => at !== null && (records[at]?.isHeld === true || isHeld(parentOf(at)));
  const isOver = ({ keptDays, closedDaysAgo }: Drawn) =>
    keptDays !== null && closedDaysAgo !== null && closedDaysAgo >= keptDays;
  const left = new Set(records.keys());
  for (let went = true; went; ) {
    went = false;
    for (const at of left) {
      const record = records[at];
      const hasUnder = [...left].some((other) => parentOf(other) === at);
      if (record === undefined || hasUnder || isHeld(at) || !isOver(record)) continue;
      left.delete(at);
      went = true;
    }
  }
  return { left, stays: conversations.map(({ on }) => on.some((at) => left.has(at))), parentOf };
}

it("a run of disposals leaves what a slow count by the definition leaves, and its certificates count what went", async () => {
  let round = 0;
  let gone = 0;
  await fc.assert(
    fc.asyncProperty(aRegister, async ({ records, conversations }) => {
      round += 1;
      const { left, stays, parentOf } = whatIsLeft(records, conversations);
      const { ids, filed } = await built(round, records, conversations, parentOf);
      const before = await count("message");
      let messages = 0;
      for (let went = true; went; ) {
        went = false;
        for (const { id } of (await lookAtRetention(tray.deps, desk.lead)).due) {
          if (!ids.includes(id)) continue;
          const { previewId } = done(await previewDisposal(tray.deps, desk.lead, id));
          const disposed = await disposeOf(tray.deps, desk.lead, desk.ines, id, previewId);
          if (!disposed.ok) continue;
          messages += disposed.value.messages;
          gone += 1;
          went = true;
        }
      }
      const there = await tray.ask("select id from record where id = any($1)", [ids]);
      const isThere = new Set(there.map(({ id }) => id));
      expect(ids.map((id) => isThere.has(id))).toEqual(ids.map((_, at) => left.has(at)));
      const kept = await tray.ask("select id from conversation where id = any($1)", [filed]);
      const isKept = new Set(kept.map(({ id }) => id));
      expect(filed.map((id) => isKept.has(id))).toEqual(stays);
      expect(before - (await count("message"))).toBe(messages);
    }),
    { numRuns: 12 },
  );
  // How many go is drawn by chance; that none does in twelve registers is not.
  expect(gone).toBeGreaterThan(0);
  expect((await examine(tray.deps)).differences).toEqual([]);
});

const count = async (table: "message") => Number((await tray.ask(`select count(*) as count from ${table}`))[0]?.count);

// As a register of that kind would have come to be.
async function built(
  round: number,
  records: readonly Drawn[],
  conversations: readonly Filed[],
  parentOf: (at: number) => number | null,
): Promise<{ readonly ids: readonly RecordId[]; readonly filed: readonly ConversationId[] }> {
  const [client] = await getTypes(tray.deps);
  const ids: RecordId[] = [];
  for (const [at, { keptDays, isHeld }] of records.entries()) {
    const parent = parentOf(at);
    const draft = {
      typeId: client?.id ?? trustedId(""),
      title: `Round ${round}, ${at}`,
      responsibleId: null,
      note: "",
    };
    const parentId = parent === null ? null : (ids[parent] ?? null);
    const made = await createRecord(tray.deps, desk.lead, { ...draft, parentId, addresses: "", access: null });
    const { id } = done(made);
    ids.push(id);
    if (isHeld) done(await holdRecord(tray.deps, desk.lead, id, "Asked for"));
    if (keptDays === null) continue;
    const policy = {
      name: `Round ${round}, ${at}`,
      period: `P${keptDays}D`,
      countsFrom: "closing",
      endsIn: "review",
    } as const;
    const { id: policyId } = done(await editPolicy(tray.deps, desk.lead, { id: null, ...policy }));
    done(await bearPolicy(tray.deps, desk.lead, "record", id, policyId));
  }
  const filed: ConversationId[] = [];
  for (const { on } of conversations) {
    const conversation = await desk.arrive({ subject: `Round ${round}` });
    for (const at of on)
      await desk.does(desk.lead, conversation, { kind: "file", recordId: ids[at] ?? trustedId(""), settle: true });
    filed.push(conversation);
  }
  await closeAll(records, ids);
  return { ids, filed };
}

async function closeAll(records: readonly Drawn[], ids: readonly RecordId[]): Promise<void> {
  const now = later(tray.clock.now as Instant, 61 * DAY);
  for (const [at, { closedDaysAgo }] of records.entries()) {
    if (closedDaysAgo === null) continue;
    tray.clock.now = later(now, -closedDaysAgo * DAY);
    done(await closeRecord(tray.deps, desk.lead, ids[at] ?? trustedId(""), true));
  }
  tray.clock.now = now;
}
