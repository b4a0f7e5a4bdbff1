import { aMessage } from "@tests/support/mail";
import {
  address,
  asLead,
  type Office,
  passes,
  setUpOffice,
  type TestTray,
  testTray,
} from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type CategoryId, type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { evidenceFor } from "../../storage/facts/index";
import {
  bringBackCategory,
  choosePreference,
  comeBack,
  decide,
  endCategory,
  examine,
  getProposing,
  learnDecisions,
  planTimeOff,
  readyForRun,
  receiveMessage,
  retireCategory,
  setUpCategories,
  setUpRecords,
  setUpTray,
  type TrayGrant,
  traysOf,
  undoBatch,
  undoCategories,
  usesBeforeEnding,
} from "../index.server";

let tray: TestTray;
let office: Office;
let lead: TrayGrant;
let tuning: CategoryId;
let quotes: CategoryId;
let vane: RecordId;
let count = 0;
const OTHERS = 24;

const value = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const arrive = async (
  subject: string,
  from = "Perpetua Vane <vane@vanehouse.example>",
  body = "Could somebody come?",
) => {
  passes(tray, 5);
  count += 1;
  const raw = aMessage({ id: `p${count}@x.example`, subject: `${subject} ${count}`, from, body });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId<ConversationId>("");
};
const does = async (id: ConversationId, ...decisions: readonly Decision[]) => {
  const batches = [];
  for (const decision of decisions) {
    passes(tray, 1);
    batches.push(value(await decide(tray.deps, lead, { ids: [id], seenVersion: null }, decision)).batchId);
  }
  return batches;
};
// What was decided before is learned by then, as it is a moment after.
const proposed = async (id: ConversationId) => {
  await learnDecisions(tray.deps);
  return (await readyForRun(tray.deps, lead, id))?.proposals ?? [];
};
const kinds = async (id: ConversationId) => (await proposed(id)).map(({ kind }) => kind).toSorted();
const counted = async () => {
  await learnDecisions(tray.deps);
  return tray.ask("select feature, label, given from filing_count where given <> 0 order by feature, label");
};
const give = (categoryId: CategoryId): Decision => ({ kind: "categorise", categoryId, give: true });
const file = (recordId: RecordId): Decision => ({ kind: "file", recordId, settle: false });

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  lead = await asLead(tray, office.ines);
  const categories = await setUpCategories(tray.deps, [
    { code: "TU", name: "Tuning", ink: "moss", parentCode: null },
    { code: "QU", name: "Quotes", ink: "copper", parentCode: null },
  ]);
  [tuning, quotes] = categories.map(({ id }) => id) as [CategoryId, CategoryId];
  const [record] = await setUpRecords(tray.deps, [
    { code: "C-033", title: "Practice organ", kind: "client", parentCode: null, closed: false },
  ]);
  vane = record?.id ?? trustedId("");
  // Before so much was decided in a tray, habits say nothing.
  for (let at = 0; at < OTHERS; at += 1) {
    const other = await arrive(`Windows and doors ${at}`, `Q${at} <q${at}@other${at}.example>`, "About the porch.");
    await does(
      other,
      { kind: "assign", ownerId: at % 2 === 0 ? office.tobias.id : office.ines.id },
      { kind: "settle" },
    );
  }
}, 120_000);
afterAll(() => tray.close());
beforeEach(() => passes(tray, 1));

const outcomes = async (kind: string) => {
  await learnDecisions(tray.deps);
  const sums = "select round(sum(said))::int as said, round(sum(was_right))::int as was_right from filing_record";
  return (await tray.ask(`${sums} where kind = $1`, [kind]))[0];
};

describe("what is proposed for a conversation", () => {
  it("is learned from what was decided, and forgotten exactly when that is undone", async () => {
    const before = await counted();
    const batches = [];
    for (let at = 0; at < 8; at += 1) {
      const id = await arrive("Tuning of the practice organ");
      batches.push(...(await does(id, give(tuning), file(vane), { kind: "assign", ownerId: office.tobias.id })));
    }
    const next = await arrive("Tuning of the practice organ");
    expect(await kinds(next)).toEqual(["assign", "categorise", "file"]);
    const filed = (await proposed(next)).find(({ kind }) => kind === "file");
    expect(filed?.because).toMatchObject({ was: 8, of: 8 });
    for (const batch of batches.toReversed()) {
      passes(tray, 1);
      value(await undoBatch(tray.deps, lead, batch));
    }
    expect(await counted()).toEqual(before);
    expect(await kinds(next)).toEqual([]);
  });

  it("goes by the house where the person is new, and by the code in the letter", async () => {
    for (let at = 0; at < 5; at += 1)
      await does(await arrive("Reeds", `P${at} <p${at}@sorrel.example>`, "The reeds are out of tune."), give(tuning));
    const next = await arrive("Reeds", "New <new@sorrel.example>", "The reeds are out of tune.");
    expect(await proposed(next)).toMatchObject([{ kind: "categorise", categoryId: tuning }]);
    const coded = await arrive("About C-033", "Nobody <nobody@elsewhere.example>", "Nothing that was said before.");
    expect(await proposed(coded)).toMatchObject([{ kind: "file", recordId: vane, because: { kind: "code" } }]);
  });

  it("is chosen from records whose titles name it as well, though nothing was filed to them yet", async () => {
    const [opened] = await setUpRecords(tray.deps, [
      { code: "P-26-090", title: "Voicing at Émile’s chantry", kind: "client", parentCode: null, closed: false },
    ]);
    const candidates = async (subject: string) => {
      const id = await arrive(subject, "Nobody <nobody@elsewhere.example>", "Nothing that was said before.");
      return [...((await evidenceFor(tray.deps.db, lead, id, tray.clock.now))?.evidence.open.keys() ?? [])];
    };
    expect(await candidates("émile’s, voicing")).toEqual([opened?.id]);
    expect(await candidates("Voice")).toEqual([]);
    await setUpRecords(tray.deps, [
      { code: "P-26-091", title: "Chantry roof", kind: "client", parentCode: null, closed: true },
    ]);
    expect(await candidates("The CHANTRY roof")).toEqual([opened?.id]);
  });

  it("has the successor of a category that was merged, and the category again when that is undone", async () => {
    const next = await arrive("Reeds", "Newer <newer@sorrel.example>", "The reeds are out of tune.");
    const announced = await usesBeforeEnding(tray.deps, tuning);
    const { stepId } = value(await endCategory(tray.deps, lead, tuning, { by: quotes, announced }));
    expect(await proposed(next)).toMatchObject([{ kind: "categorise", categoryId: quotes }]);
    passes(tray, 1);
    value(await undoCategories(tray.deps, lead, stepId ?? trustedId("")));
    expect(await proposed(next)).toMatchObject([{ kind: "categorise", categoryId: tuning }]);
  });

  it("holds what it says against what is decided then, once for each kind", async () => {
    const before = await outcomes("categorise");
    const right = await arrive("Reeds", "A <a1@sorrel.example>", "The reeds are out of tune.");
    await does(right, give(tuning), { ...give(tuning), give: false } as Decision, give(tuning));
    const wrong = await arrive("Reeds", "B <b1@sorrel.example>", "The reeds are out of tune.");
    await does(wrong, give(quotes));
    // Settled without one, it was not to be proposed.
    await does(await arrive("Reeds", "C <c1@sorrel.example>", "The reeds are out of tune."), { kind: "settle" });
    expect(await outcomes("categorise")).toEqual({ said: before.said + 3, was_right: before.was_right + 1 });
  });

  it("is what can be accepted: whoever covers for an owner who is away, no category that was retired", async () => {
    const from = "Ada <ada@windchest.example>";
    for (let at = 0; at < 5; at += 1)
      await does(await arrive("Windchest", from), give(quotes), { kind: "assign", ownerId: office.tobias.id });
    const next = await arrive("Windchest", from);
    const owner = async () => (await proposed(next)).find(({ kind }) => kind === "assign");
    expect(await owner()).toMatchObject({ ownerId: office.tobias.id });
    const now = tray.deps.now();
    const cover = { trayId: lead.tray.id, recordId: null, memberId: office.ines.id };
    const off = { memberId: office.tobias.id, from: later(now, -DAY), until: later(now, DAY), covers: [cover] };
    const away = value(await planTimeOff(tray.deps, lead, off));
    expect(await owner()).toMatchObject({ ownerId: office.ines.id, coversFor: office.tobias.id });
    // Held against what is decided it was right.
    const before = await outcomes("assign");
    await does(await arrive("Windchest", from), { kind: "assign", ownerId: office.ines.id });
    expect(await outcomes("assign")).toEqual({ said: before.said + 1, was_right: before.was_right + 1 });
    value(await comeBack(tray.deps, lead, office.tobias.id, away));
    expect(await owner()).not.toHaveProperty("coversFor");
    expect(await kinds(next)).toEqual(["assign", "categorise"]);
    value(await retireCategory(tray.deps, lead, quotes));
    expect(await kinds(next)).toEqual(["assign"]);
    value(await bringBackCategory(tray.deps, lead, quotes));
  });

  it("is less, and surer, for whoever wants to be told only what is sure; what that comes to is measured", async () => {
    const from = "Bert <bert@reservoir.example>";
    const sorted = (at: number) => give(at % 3 === 0 ? tuning : quotes);
    for (let at = 0; at < 30; at += 1) await does(await arrive("Reservoir", from), sorted(at), { kind: "settle" });
    const next = await arrive("Reservoir", from);
    const often = await proposed(next);
    await choosePreference(tray.deps, lead, "proposals", "sure");
    const sure = await proposed(next);
    await choosePreference(tray.deps, lead, "proposals", null);
    const categories = (all: typeof often) => all.filter(({ kind }) => kind === "categorise").length;
    expect([categories(often), categories(sure)]).toEqual([1, 0]);
    const measured = await getProposing(tray.deps, lead);
    for (const one of [measured.often, measured.sure]) {
      expect(one?.right).toBeGreaterThan(0);
      expect(one?.right).toBeLessThanOrEqual(1);
    }
    expect(measured.often?.proposed).toBeGreaterThan(measured.sure?.proposed ?? 1);
    expect(measured.sure?.right).toBeGreaterThan(measured.often?.right ?? 1);
  });

  it("is each tray's own", async () => {
    await setUpTray(tray.deps, {
      slug: "parts",
      name: "Parts",
      timeZone: "UTC",
      addresses: [address("parts@ottermoor.example")],
    });
    const [parts] = await tray.ask("select id from tray where slug = 'parts'");
    await tray.ask("insert into tray_member values ($1, $2, 'member')", [parts.id, office.ines.id]);
    const grant = (await traysOf(tray.deps, office.ines)).find(({ tray: { slug } }) => slug === "parts") ?? lead;
    const raw = aMessage({
      id: "parts@x.example",
      subject: "Reeds",
      from: "D <d1@sorrel.example>",
      to: "parts@ottermoor.example",
    });
    const [kept] = await receiveMessage(tray.deps, {
      raw,
      envelopeSender: "a@x.example",
      recipients: [address("parts@ottermoor.example")],
    });
    const ready = await readyForRun(tray.deps, grant, kept?.conversationId ?? trustedId(""));
    expect(ready?.proposals).toEqual([]);
  });
});

it("rests on counts that the doctor comes to as well, and that it misses where they are not so", async () => {
  expect(await examine(tray.deps)).toMatchObject({ healthy: true, countsAstray: 0, lostCategories: 0 });
  await tray.ask("update filing_told set decided = decided + 1 where feature = 'd:sorrel.example'");
  const { healthy, countsAstray } = await examine(tray.deps);
  expect([healthy, countsAstray > 0]).toEqual([false, true]);
});
