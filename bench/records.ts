import { createHash } from "node:crypto";
import { Readable } from "node:stream";
import { buffer } from "node:stream/consumers";
import { Client } from "pg";
import { type ConversationId, type RecordId, trustedId } from "~/core/kernel/ids";
import { openZip } from "~/mail/index";
import type { Wired } from "~/main/wiring";
import { writtenDown } from "~/operations/base/written-down";
import {
  arrangedRecords,
  buildZipExport,
  correspondenceOn,
  getTypes,
  importInto,
  importRecord,
  importRecords,
  recordOfCode,
  recordPage,
  recordsToFileOn,
  retentionOf,
  runBulk,
  runsUnderWay,
  SHOWN_ON_RECORD,
  startBulkRun,
  type TrayGrant,
  undoSteps,
} from "~/operations/index.server";
import { leadOf } from "./lead";
import { type Figure, medianMs } from "./measure";
import { recordedStatements } from "./recorded-statements";

const RECORDS = 5_000;
const CONVERSATIONS = 5_000;
const MESSAGES_EACH = 6;
const RUNS = 5;
const MOST = 3;
const MOST_KEY_MS = 30;
const CODE = "P-26-4000";

const WORDS = ["bellows", "console", "swell", "reed", "pallet", "trace", "voicing", "leather", "chamois", "windchest"];
const word = (at: number) => WORDS[at % WORDS.length] ?? "";

/** A letter of a thread of six, theirs and ours by turns. */
function threaded(thread: number, at: number): Buffer {
  const id = (one: number) => `<t${thread}-${one}@bench.example>`;
  const them = `Person ${thread % 900} <person${thread % 900}@bench.example>`;
  const us = '"Ines Varga, Ottermoor Organ Works" <office@ottermoor.example>';
  const [from, to] = at % 2 === 0 ? [them, us] : [us, them];
  const date = new Date(Date.UTC(2024, 0, 1) + thread * 7_200_000 + at * 86_400_000).toUTCString();
  const answers = at === 0 ? "" : `In-Reply-To: ${id(at - 1)}\r\nReferences: ${id(0)} ${id(at - 1)}\r\n`;
  const text = `About the ${word(thread)} and the ${word(thread + at)}, number ${thread}.\r\n\r\nIt can wait until the week after, unless the weather turns.\r\n`;
  return Buffer.from(
    `From: ${from}\r\nTo: ${to}\r\nSubject: ${at === 0 ? "" : "Re: "}The ${word(thread)} of number ${thread}\r\nDate: ${date}\r\nMessage-ID: ${id(at)}\r\n${answers}\r\n${text}`,
  );
}

function* letters(): Generator<Uint8Array> {
  for (let thread = 0; thread < CONVERSATIONS; thread += 1)
    for (let at = 0; at < MESSAGES_EACH; at += 1) yield threaded(thread, at);
}

/** A register as large as it gets, and a record with 5,000 conversations and 30,000 messages on it; each figure as it is there. */
export async function* recordFigures(wired: Wired, url: string, other: Wired): AsyncGenerator<Figure> {
  const { deps } = wired;
  const grant = await leadOf(wired);
  const raw = new Client({ connectionString: url });
  await raw.connect();
  const lines = Array.from(
    { length: RECORDS },
    (_, at) => `The ${word(at)} of house ${at},Project,P-26-${String(at).padStart(4, "0")}`,
  );
  const table = await importRecords(deps, grant, ["title,type,code", ...lines].join("\n"), false);
  if (!table.ok || table.value.some(({ kind }) => kind !== "new")) throw new Error("the register was not taken in");
  await importInto(deps, grant.tray, Readable.from(letters()), { asHistory: true, goesOn: () => true });
  const record = await recordOfCode(deps, grant, CODE);
  if (record === null) throw new Error("there is no such record");
  await raw.query("vacuum analyze");
  yield* await filingFigures(wired, grant, raw, record.id);
  await raw.query("vacuum analyze");
  yield await pageFigure(wired, grant, raw);
  yield await pickerFigure(wired, grant);
  yield* await roundTripFigures(wired, grant, other);
  await raw.end();
}

const alone = { floor: Number.NaN, floorName: "", ratio: Number.NaN } as const;

async function filingFigures({ deps }: Wired, grant: TrayGrant, raw: Client, recordId: RecordId): Promise<Figure[]> {
  const { rows } = await raw.query("select id from conversation where tray_id = $1 order by id", [grant.tray.id]);
  const ids = rows.map(({ id }) => trustedId<ConversationId>(id));
  const state = async () =>
    (await raw.query("select md5(string_agg(record_ids::text || standing, '' order by id)) as state from conversation"))
      .rows[0].state;
  const before = await state();
  const file = async () => {
    const began = performance.now();
    const run = await startBulkRun(deps, grant, ids, { kind: "file", recordId, settle: false }, "Filed");
    if (!run.ok) throw new Error(run.error.kind);
    const answered = performance.now() - began;
    await runBulk(deps, run.value);
    const done = (await runsUnderWay(deps, grant)).find(({ id }) => id === run.value);
    return { answered, ms: performance.now() - began, done };
  };
  const first = await file();
  const undone = await undoSteps(deps, grant, { batchIds: first.done === undefined ? [] : [first.done.batchId] });
  if (undone.ok && "runId" in undone.value) await runBulk(deps, undone.value.runId);
  const isAsBefore = (await state()) === before;
  await file();
  const isWhole = first.done?.state === "done" && first.done.changed === ids.length;
  return [
    {
      name: `filing ${ids.length.toLocaleString("en")} conversations as one action, in the background: all of it`,
      unit: "s",
      measured: first.ms / 1_000,
      ...alone,
      asked: "all of them, and undone again",
      holds: isWhole && isAsBefore,
    },
    {
      name: "until whoever asked for that is answered",
      unit: "ms",
      measured: first.answered,
      ...alone,
      asked: "at most 1,000",
      holds: first.answered <= 1_000,
    },
  ];
}

async function pageFigure({ deps }: Wired, grant: TrayGrant, raw: Client): Promise<Figure> {
  const open = async () => {
    const page = await recordPage(deps, grant, CODE);
    if (page === null) throw new Error("the record is gone");
    await correspondenceOn(deps, grant, page.record, { text: "", most: SHOWN_ON_RECORD });
    await retentionOf(deps, grant, page.record.id);
    return page;
  };
  const { count } = await open();
  const statements = await recordedStatements(open);
  const floor = await medianMs(RUNS, async () => {
    for (const { text, values } of statements) await raw.query(text, values as unknown[]);
  });
  const measured = await medianMs(RUNS, open);
  const ratio = measured / floor;
  return {
    name: `opening a record with ${count.filed.toLocaleString("en")} conversations and ${(count.filed * MESSAGES_EACH).toLocaleString("en")} messages (${statements.length} statements)`,
    unit: "ms",
    measured,
    floor,
    floorName: "its raw SQL",
    ratio,
    asked: `at most ${MOST}`,
    holds: ratio <= MOST && count.filed === CONVERSATIONS,
  };
}

// As somebody types: the beginning of a code, of a word, of a name that there is not.
const TYPED = ["P-26-4321", "bellows of", "house 77", "console", "nothing like it", "the reed of house 12"];

async function pickerFigure({ deps }: Wired, grant: TrayGrant): Promise<Figure> {
  const times: number[] = [];
  for (const typed of TYPED) {
    for (let length = 0; length <= typed.length; length += 1) {
      const text = typed.slice(0, length);
      const began = performance.now();
      await Promise.all([recordsToFileOn(deps, grant, text), getTypes(deps), arrangedRecords(deps, grant, text)]);
      times.push(performance.now() - began);
    }
  }
  const measured = times.toSorted((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? Number.NaN;
  return {
    name: `the picker on ${RECORDS.toLocaleString("en")} records, ${times.length} keys, the 95th percentile`,
    unit: "ms",
    measured,
    ...alone,
    asked: `at most ${MOST_KEY_MS}`,
    holds: measured <= MOST_KEY_MS,
  };
}

async function roundTripFigures({ deps }: Wired, grant: TrayGrant, other: Wired): Promise<Figure[]> {
  const zipFrom = async (from: Wired["deps"], who: TrayGrant) => {
    const record = await recordOfCode(from, who, CODE);
    const what = { recordId: record?.id ?? null, text: "", everywhere: false };
    const made = await buildZipExport(from, who, what, { format: "eml", withNotes: false });
    if (made === null) throw new Error("there is no such record to take out");
    return buffer(made.content);
  };
  let began = performance.now();
  const out = await zipFrom(deps, grant);
  const exported = (performance.now() - began) / 1_000;
  const there = await leadOf(other);
  began = performance.now();
  const zip = await opened(out);
  const restored = await importRecord(other.deps, there, zip);
  zip.close();
  const restoring = (performance.now() - began) / 1_000;
  if (!restored.ok) throw new Error(writtenDown(restored.error));
  const again = await zipFrom(other.deps, there);
  const [before, after] = [await sums(out), await sums(again)];
  const differing = [...new Set([...before.keys(), ...after.keys()])].filter(
    (name) => before.get(name) !== after.get(name),
  );
  return [
    {
      name: `taking that record out as a zip of ${(out.byteLength / 1e6).toFixed(0)} MB with ${before.size.toLocaleString("en")} files`,
      unit: "s",
      measured: exported,
      ...alone,
      asked: "written as it is read",
      holds: true,
    },
    {
      name: `taking it in into an empty database: ${restored.value.messages.toLocaleString("en")} messages`,
      unit: "s",
      measured: restoring,
      ...alone,
      asked: "all of them",
      holds: restored.value.messages === CONVERSATIONS * MESSAGES_EACH,
    },
    {
      name: `files that differ when it is taken out there again${differing[0] === undefined ? "" : `, as ${differing[0]}`}`,
      unit: "files",
      measured: differing.length,
      ...alone,
      asked: "none",
      holds: differing.length === 0,
    },
  ];
}

async function sums(zip: Uint8Array): Promise<Map<string, string>> {
  const files = await opened(zip);
  const found = new Map<string, string>();
  for (const name of files.names) {
    const content = await files.read(name);
    found.set(
      name,
      createHash("sha256")
        .update(content ?? "")
        .digest("hex"),
    );
  }
  files.close();
  return found;
}

async function opened(content: Uint8Array) {
  const zip = await openZip(content);
  if (zip === null) throw new Error("that is no zip");
  return zip;
}
