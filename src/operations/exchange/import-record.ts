import type { Effect } from "../../core/journal/entry";
import { groupedBy } from "../../core/kernel/grouped";
import { type BatchId, type ConversationId, type MessageId, type RecordId, trustedId } from "../../core/kernel/ids";
import { type Instant, readInstant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { FieldValues, FilingField } from "../../core/records/filing-field";
import type { Filing } from "../../core/records/filing-means";
import { RECORD_COLUMNS } from "../../core/records/register-table";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { type OpenZip, readTable } from "../../mail/index";
import { allMembers, type TrayGrant } from "../../storage/access/index";
import { inTransaction, inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { factsOf, lockConversations, placesOfKeys } from "../../storage/facts/index";
import { addRecordDocument, recordByCode, recordTypes, registerRecords } from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf, type Wording } from "../../texts/said";
import { incomingPast } from "../arriving/import-mail";
import { ingestMessages } from "../arriving/ingest-message";
import type { Incoming } from "../arriving/to-new-message";
import type { Deps, Within } from "../base/deps";
import { dedupeKeyOf } from "../base/message-fact";
import { writtenDown } from "../base/written-down";
import { carryOut } from "../changes/change-conversations";
import { joinConversations, splitOff } from "../deciding/join-conversations";
import { takeRecordLines } from "../records/record-table";
import { refusalInWords } from "../refusals/refusal";
import { type Letter, type Line, type ReadZip, readRecordZip } from "./read-record-zip";
import { FIELD_PREFIX } from "./zip-index";

const said = saidOf(recordsTexts);

/** What came of taking a record in: where it is, and how much was not here before. */
export type ImportedRecord = {
  readonly id: RecordId;
  readonly code: string;
  readonly title: string;
  readonly messages: number;
  readonly knownAlready: number;
  readonly conversations: number;
  readonly documents: number;
  /** What is otherwise here than it was there, in sentences. */
  readonly remarks: readonly string[];
};

/** How many of the messages of the zip have been gone through, and how many of them were not here before. */
export type RecordImportProgress = { readonly read: number; readonly total: number; readonly added: number };

/**
 * Takes in what `buildZipExport` wrote of a record: the record, and what it stands under where that is not here, its messages in
 * the conversations that they were in, who filed them there when and how, its documents, its notes. What is here already is
 * not added again, so that it can be done twice. Conversation by conversation; `goesOn` is asked after each whether to go on.
 * For those who lead a tray; a refusal is a sentence.
 */
export async function importRecord(
  deps: Deps,
  grant: TrayGrant,
  zip: OpenZip,
  goesOn: (sofar: RecordImportProgress) => Promise<boolean> = async () => true,
): Promise<Result<ImportedRecord, Wording>> {
  if (grant.role !== "lead") return err(refusalInWords({ kind: "leads-only" }));
  const read = await readRecordZip(zip);
  if (!read.ok) return read;
  try {
    return await restore(deps, grant, read.value, goesOn);
  } finally {
    await read.value.close?.();
  }
}

async function restore(
  deps: Deps,
  grant: TrayGrant,
  read: ReadZip,
  goesOn: (sofar: RecordImportProgress) => Promise<boolean>,
): Promise<Result<ImportedRecord, Wording>> {
  const opened = await openFromTable(deps, grant, read);
  if (!opened.ok) return opened;
  const restoring = { recordId: opened.value.id, fields: await fieldsOf(deps, grant, opened.value.id) };
  const threads = await restoreThreads(deps, grant, restoring, read, goesOn);
  if (threads === null) return err(said("records.itWasStoppedWhatHad"));
  const documents = await inTransaction(deps.db, (trx) => addDocuments(trx, deps, restoring, read.documents));
  deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return ok({
    ...opened.value,
    documents,
    conversations: threads.homes.size,
    remarks: threads.remarks,
    messages: threads.added,
    knownAlready: read.letters.length - threads.added,
  });
}

// What is here by its code stays as it is here.
async function openFromTable(
  deps: Deps,
  grant: TrayGrant,
  { table, code }: ReadZip,
): Promise<Result<{ readonly id: RecordId; readonly code: string; readonly title: string }, Wording>> {
  const read = readTable(table, RECORD_COLUMNS);
  if (!read.ok) return read;
  const taken = await inTransactionUnlessRefused<null, Wording>(deps.db, async (trx) => {
    const lines = await takeRecordLines(trx, deps, grant, read.value, (one, known) => !known.has(one));
    const wrong = lines.flatMap((line) =>
      line.kind === "problem" ? [said("records.lineProblem", { line: line.words, problem: line.problem })] : [],
    );
    return wrong[0] === undefined ? ok(null) : err(wrong[0]);
  });
  if (!taken.ok) return taken;
  const record = await recordByCode(deps.db, grant, code);
  return record === null ? err(refusalInWords({ kind: "no-such", what: "record" })) : ok(record);
}

async function fieldsOf(deps: Deps, grant: TrayGrant, id: RecordId): Promise<readonly FilingField[]> {
  const [entry] = await registerRecords(deps.db, grant, [id]);
  return (await recordTypes(deps.db)).find((type) => type.id === entry?.typeId)?.fields ?? [];
}

type Restoring = { readonly recordId: RecordId; readonly fields: readonly FilingField[] };

/** The conversations of the zip, with what they came to lie in; how many messages were not here before. */
type Threads = {
  readonly homes: ReadonlySet<ConversationId>;
  readonly added: number;
  readonly remarks: readonly string[];
};

/** Takes the conversations in one by one; null when it is not to go on. */
async function restoreThreads(
  deps: Deps,
  grant: TrayGrant,
  restoring: Restoring,
  { letters, notes }: ReadZip,
  goesOn: (sofar: RecordImportProgress) => Promise<boolean>,
): Promise<Threads | null> {
  const homes = new Set<ConversationId>();
  const remarks: string[] = [];
  const sofar = { read: 0, total: letters.length, added: 0 };
  const notesOf = groupedBy(notes, ({ conversation }) => conversation ?? "");
  for (const [name, together] of groupedBy(letters, ({ line }) => line.conversation ?? "")) {
    const parsed: PlacedLetter[] = [];
    for (const { line, load } of together) parsed.push({ line, incoming: await incomingOf(deps, line, await load()) });
    const incoming = parsed.map((one) => one.incoming);
    const kept = await inTransaction(deps.db, (trx) => ingestMessages(trx, deps, grant.tray, incoming));
    const added = kept.filter(({ outcome }) => outcome !== "known-already").length;
    const home = await gathered(deps, grant, incoming, homes);
    if (home === null) remarks.push(writtenDown(said("records.couldNotBeKeptApart", { name })));
    else {
      homes.add(home);
      const thread = { home, letters: parsed, isNew: added === together.length, notes: notesOf.get(name) ?? [] };
      await inTransaction(deps.db, (trx) => fileThread(trx, deps, grant, restoring, thread));
      deps.publishChange({ trayId: grant.tray.id, conversationId: home });
    }
    sofar.read += together.length;
    sofar.added += added;
    if (!(await goesOn(sofar))) return null;
  }
  return { homes, added: sofar.added, remarks };
}

type PlacedLetter = { readonly line: Line; readonly incoming: Incoming };

// A clock that was not believed there is not believed here.
const incomingOf = (deps: Deps, { date = "" }: Line, raw: Uint8Array) =>
  incomingPast(deps, raw, readInstant(date) ?? deps.now());

// Threads are told from mail; what was joined or split by hand there is joined and split again.
async function gathered(
  deps: Deps,
  grant: TrayGrant,
  incoming: readonly Incoming[],
  others: ReadonlySet<ConversationId>,
): Promise<ConversationId | null> {
  const keys = incoming.map(({ message, raw }) => dedupeKeyOf(message, raw));
  const places = await placesOfKeys(deps.db, grant.tray.id, keys);
  const [first] = places;
  const areTogether = places.every(({ conversationId }) => conversationId === first?.conversationId);
  if (first !== undefined && areTogether && !others.has(first.conversationId)) return first.conversationId;
  let home: ConversationId | null = null;
  for (const key of keys) {
    // Each step moves others along.
    const [place] = await placesOfKeys(deps.db, grant.tray.id, [key]);
    if (place === undefined) continue;
    let { conversationId } = place;
    if (others.has(conversationId)) {
      const split = await splitOff(deps, grant, conversationId, place.messageId);
      if (!split.ok) return home;
      ({ conversationId } = split.value);
    }
    if (home !== null && home !== conversationId) await joinConversations(deps, grant, home, conversationId);
    home ??= conversationId;
  }
  return home;
}

const SETTLED: Effect = { kind: "settled" };

/** A conversation that is here now, with what the zip says of it. */
type Thread = {
  readonly home: ConversationId;
  readonly letters: readonly PlacedLetter[];
  /** None of its messages was here before. */
  readonly isNew: boolean;
  readonly notes: readonly Line[];
};

async function fileThread(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  restoring: Restoring,
  thread: Thread,
): Promise<void> {
  const [held] = await lockConversations(trx, grant.tray.id, [thread.home]);
  const known = (await factsOf(trx, [thread.home])).get(thread.home);
  if (held === undefined || known === undefined) return;
  const effects = await filingEffects(trx, grant, restoring, thread, known);
  const change = { conversation: held, known, effects };
  await carryOut(trx, deps, grant.memberId, trustedId<BatchId>(deps.newId()), [change]);
  await addNotes(trx, deps, grant, thread);
}

async function filingEffects(
  trx: Transaction,
  grant: TrayGrant,
  { recordId, fields }: Restoring,
  { letters, isNew }: Thread,
  { entries }: ConversationFacts,
): Promise<Effect[]> {
  const effects: Effect[] = [];
  const isOn = entries.some(({ effect }) => effect.kind === "filed" && effect.recordId === recordId);
  const whole = letters.find(({ line }) => line.alone !== "yes");
  if (whole !== undefined && !isOn) effects.push({ kind: "filed", ...filingIn(whole.line, recordId, fields) });
  for (const { line, incoming } of letters.filter((letter) => letter.line.alone === "yes")) {
    const key = dedupeKeyOf(incoming.message, incoming.raw);
    const [place] = await placesOfKeys(trx, grant.tray.id, [key]);
    if (place === undefined || entries.some(({ effect }) => isPartOn(effect, recordId, place.messageId))) continue;
    const part = { messageId: place.messageId, attachment: null };
    effects.push({ kind: "part-filed", ...filingIn(line, recordId, fields), ...part });
  }
  // Nobody has to sort the past.
  return isNew ? [...effects, SETTLED] : effects;
}

const isPartOn = (effect: Effect, recordId: RecordId, messageId: MessageId) =>
  effect.kind === "part-filed" && effect.recordId === recordId && effect.messageId === messageId;

function filingIn(line: Line, recordId: RecordId, fields: readonly FilingField[]): Filing {
  const given: FieldValues = Object.fromEntries(
    Object.entries(line).flatMap(([column, value]) => {
      if (!column.startsWith(FIELD_PREFIX) || value === "") return [];
      const label = column.slice(FIELD_PREFIX.length);
      return [[fields.find((field) => field.label === label)?.key ?? label, value]];
    }),
  );
  const at = readInstant(line.filedAt ?? "");
  return {
    recordId,
    means: "import",
    ...(Object.keys(given).length === 0 ? {} : { fields: given }),
    ...(at === null ? {} : { earlier: { by: line.filedBy ?? "", at, how: line.means ?? "" } }),
  };
}

// By whoever of that name is here, at the time at which they were written.
async function addNotes(trx: Transaction, deps: Within, grant: TrayGrant, { home, notes }: Thread): Promise<void> {
  if (notes.length === 0) return;
  const members = await allMembers(trx);
  for (const { at: written = "", by = "", text = "" } of notes) {
    const at = readInstant(written);
    if (at === null || text === "") continue;
    const [held] = await lockConversations(trx, grant.tray.id, [home]);
    const known = (await factsOf(trx, [home])).get(home) ?? NOTHING_HAPPENED;
    const isHere = known.entries.some((entry) => entry.effect.kind === "noted" && entry.at === at);
    if (held === undefined || isHere) continue;
    const writer = members.find(({ name }) => name === by)?.id ?? null;
    const then: Within = { ...deps, now: () => at };
    const effects: Effect[] = [{ kind: "noted", text: writer === null && by !== "" ? `${by}: ${text}` : text }];
    await carryOut(trx, then, writer, trustedId<BatchId>(deps.newId()), [{ conversation: held, known, effects }]);
  }
}

async function addDocuments(
  trx: Transaction,
  deps: Within,
  { recordId, fields }: Restoring,
  documents: readonly Letter[],
): Promise<number> {
  let count = 0;
  for (const { line, load } of documents) {
    const at: Instant = readInstant(line.date ?? "") ?? deps.now();
    const fileName = line.attachments ?? "document";
    const { recordId: _, means: _means, ...filing } = filingIn(line, recordId, fields);
    const isFiled = Object.keys(filing).length > 0;
    const whose = { at, who: line.from ?? "", by: null, filing: isFiled ? filing : null };
    const document = { id: deps.newId(), recordId, fileName, ...whose };
    const contentType = "application/octet-stream";
    if ((await addRecordDocument(trx, { ...document, contentType }, await load())) !== null) count += 1;
  }
  return count;
}
