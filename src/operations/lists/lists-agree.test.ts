import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type CategoryId, type ConversationId, type FollowUpId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, HOUR, later } from "../../core/kernel/instant";
import { URGENCIES } from "../../core/kernel/urgency";
import { dayBands, dueBands } from "../../core/lists/bands";
import { laneKeysOf } from "../../core/lists/lanes-of-row";
import { isInScope, type Scope } from "../../core/lists/scope";
import { GROUPINGS, type Grouping } from "../../core/lists/sheet-view";
import { STANDINGS } from "../../core/standing/standing";
import {
  decide,
  examine,
  listConversations,
  moreOfList,
  receiveMessage,
  redoNewest,
  setUpCategories,
  setUpRecords,
  undoNewest,
  wakeRested,
} from "../index.server";

const CONVERSATIONS = 8;
const SCOPES: readonly Scope[] = [...STANDINGS, "open"];

let tray: TestTray;
let office: Office;
const ids: ConversationId[] = [];
const categories: CategoryId[] = [];
const records: RecordId[] = [];

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const made = await setUpCategories(tray.deps, [
    { code: "TU", name: "Tuning", ink: "moss", parentCode: null },
    { code: "LE", name: "Leather", ink: "umber", parentCode: null },
  ]);
  categories.push(...made.map(({ id }) => id));
  const kept = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
    { code: "C-033", title: "Vane House", kind: "client", parentCode: null, closed: false },
  ]);
  records.push(...kept.map(({ id }) => id));
  for (let at = 0; at < CONVERSATIONS; at += 1) {
    passes(tray, 60 * 11);
    const date = dateOf(tray.clock.now).toUTCString();
    const raw = aMessage({ id: `agree-${at}@vanehouse.example`, subject: `Letter ${at}`, date });
    const recipients = [address("office@ottermoor.example")];
    const [one] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    ids.push(one?.conversationId ?? trustedId(""));
  }
});
afterAll(() => tray.close());

/** Something that somebody does, or that time does. */
type Step = { readonly at: number; readonly what: string; readonly pick: number };

const step: fc.Arbitrary<Step> = fc.record({
  at: fc.nat({ max: CONVERSATIONS - 1 }),
  pick: fc.nat({ max: 7 }),
  what: fc.constantFrom(
    "assign",
    "give",
    "take",
    "file",
    "unfile",
    "settle",
    "bin",
    "junk",
    "restore",
    "keep",
    "rest",
    "rest-open",
    "expect",
    "stop",
    "urgency",
    "follow-up",
    "note",
    "undo",
    "redo",
    "wait",
  ),
});

function pickOf<T>(all: readonly T[], pick: number): T {
  const one = all[pick % all.length];
  if (one === undefined) throw new Error("there is nothing to pick from");
  return one;
}

function decisionOf(what: string, pick: number): Decision | null {
  const soon = later(tray.clock.now, (pick + 1) * 9 * HOUR);
  switch (what) {
    case "assign":
      return { kind: "assign", ownerId: pickOf([office.ines.id, office.tobias.id, null], pick) };
    case "give":
    case "take":
      return { kind: "categorise", categoryId: pickOf(categories, pick), give: what === "give" };
    case "file":
      return { kind: "file", recordId: pickOf(records, pick), settle: pick > 5 };
    case "unfile":
      return { kind: "unfile", recordId: pickOf(records, pick) };
    case "rest":
      return { kind: "rest", until: soon, ...(pick % 2 === 0 ? { evenIfAnswered: true } : {}) };
    case "rest-open":
      return { kind: "rest", until: null };
    case "expect":
      return { kind: "expect", until: pick > 5 ? null : soon, expectationId: trustedId(tray.deps.newId()) };
    case "stop":
      return { kind: "stop-expecting" };
    case "urgency":
      return { kind: "urgency", urgency: pickOf(URGENCIES, pick) };
    case "follow-up": {
      const followUpId = trustedId<FollowUpId>(tray.deps.newId());
      return { kind: "follow-up", followUpId, forMember: office.ines.id, dueAt: pick > 5 ? null : soon, text: "x" };
    }
    case "note":
      return { kind: "note", text: "x" };
    case "settle":
    case "bin":
    case "junk":
    case "restore":
    case "keep":
      return { kind: what };
    default:
      return null;
  }
}

async function happens({ at, what, pick }: Step): Promise<void> {
  passes(tray, 1);
  const decision = decisionOf(what, pick);
  if (decision !== null) {
    const done = await decide(
      tray.deps,
      office.grant,
      { ids: [ids[at] ?? trustedId("")], seenVersion: null },
      decision,
    );
    expect(done.ok).toBe(true);
  } else if (what === "undo") await undoNewest(tray.deps, office.grant);
  else if (what === "redo") await redoNewest(tray.deps, office.grant);
  else {
    tray.clock.now = later(tray.clock.now, (pick * DAY) / 4);
    await wakeRested(tray.deps);
  }
}

const asked = (scope: Scope, grouping: Grouping | null = null) => ({
  scope,
  filter: {},
  view: { order: "date" as const, reversed: false, grouping },
});

describe("whatever happens", () => {
  it("each conversation is in one standing's list, and in the groups that its docket says", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 10 }), async (steps) => {
        for (const one of steps) await happens(one);
        const lists = await Promise.all(
          SCOPES.map(async (scope) => {
            const page = { lane: "", after: null, limit: 50 };
            return [scope, await moreOfList(tray.deps, office.grant, office.ines, asked(scope), page)] as const;
          }),
        );
        const everywhere = lists.filter(([scope]) => scope !== "open").flatMap(([, rows]) => rows.map(({ id }) => id));
        expect(everywhere.toSorted()).toEqual(ids.toSorted());
        for (const [scope, rows] of lists) {
          expect(rows.every(({ standing }) => isInScope(standing, scope))).toBe(true);
          expect(rows.map(({ listedAt }) => listedAt)).toEqual(
            rows.map(({ listedAt }) => listedAt).toSorted((a, b) => b - a),
          );
        }
        const open = lists.find(([scope]) => scope === "open")?.[1] ?? [];
        for (const grouping of GROUPINGS) {
          const bands = { day: dayBands, due: dueBands }[grouping as "day" | "due"]?.(tray.clock.now, "UTC") ?? [];
          const { lanes, total } = await listConversations(
            tray.deps,
            office.grant,
            office.ines,
            asked("open", grouping),
          );
          expect([grouping, total]).toEqual([grouping, open.length]);
          const expected = open.flatMap((row) => laneKeysOf(row, grouping, bands).map((key) => `${key} ${row.id}`));
          const found = lanes.flatMap(({ key, rows }) => rows.map(({ id }) => `${key} ${id}`));
          expect([grouping, found.toSorted()]).toEqual([grouping, expected.toSorted()]);
        }
        expect(await examine(tray.deps)).toMatchObject({ differences: [] });
      }),
      { numRuns: 15 },
    );
  }, 60_000);
});
