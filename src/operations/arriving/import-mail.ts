import type { Effect } from "../../core/journal/entry";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type BatchId, type ConversationId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { MailMessage } from "../../core/message/mail-message";
import { timesByNeighbours } from "../../core/message/times-by-neighbours";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { baseSubject } from "../../core/threading/base-subject";
import { independentGroups } from "../../core/threading/independent-groups";
import { threadIds } from "../../core/threading/place-message";
import { recordCodesIn } from "../../core/threading/record-codes";
import { DamagedFile, readMailFiles } from "../../mail/index";
import type { Tray } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { officeTexts } from "../../texts/en/office";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { cachedColleagues, traysOfAddresses } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import { carryOut } from "../changes/change-conversations";
import { type Incoming, ingestMessages } from "./ingest-message";

const said = saidOf(officeTexts);

export type ImportReport = {
  readonly read: number;
  readonly added: number;
  readonly knownAlready: number;
  /** Odd ones, kept all the same. */
  readonly flagged: number;
  readonly bytesRead: number;
  /** Files that are no mail, by name. */
  readonly passedOver: readonly string[];
  /** Where and why the file could not be read on; null when it was read to its end. */
  readonly problem: string | null;
};

export type ImportOptions = {
  /** Settle what the import touches: it is the past, and nobody has to sort it. */
  readonly asHistory: boolean;
  /** Told after each batch, which is committed then; false stops the import there. */
  readonly goesOn: (sofar: ImportReport) => Promise<boolean> | boolean;
};

const NOTHING_READ: ImportReport = {
  read: 0,
  added: 0,
  knownAlready: 0,
  flagged: 0,
  bytesRead: 0,
  passedOver: [],
  problem: null,
};

const BATCH = 100;
const BATCH_BYTES = 16 * 1024 * 1024;
// Stored at the same time; the machine waits for the disk less.
const GROUPS = 2;

/** Takes the messages of a file or folder (mbox, eml, zip) into the tray of an address. A second import of the same adds nothing. */
export async function importMail(
  deps: Deps,
  path: string,
  trayAddress: EmailAddress,
  options: ImportOptions,
): Promise<Result<ImportReport, { kind: "no-such-tray" }>> {
  const [tray] = await traysOfAddresses(deps, [trayAddress]);
  if (tray === undefined) return err({ kind: "no-such-tray" });
  return ok(await importFiles(deps, tray, path, options));
}

/** The same into a tray that is known. */
export async function importFiles(deps: Deps, tray: Tray, path: string, options: ImportOptions): Promise<ImportReport> {
  const passedOver: string[] = [];
  const messages = readMailFiles(path, { passesOver: (name) => passedOver.push(name) });
  return { ...(await importInto(deps, tray, messages, options)), passedOver };
}

const FILES_NAMED = 5;

/** What an import passed over, in a sentence; null where that is nothing. */
export function passedOverInWords({ passedOver }: ImportReport): string | null {
  if (passedOver.length === 0) return null;
  const files = passedOver.slice(0, FILES_NAMED).join(", ");
  const count = passedOver.length - FILES_NAMED;
  return writtenDown(
    count > 0 ? said("office.passedOverAndMore", { files, count }) : said("office.passedOver", { files }),
  );
}

/** The same from wherever messages come. Every batch is one transaction, so that it can end anywhere and be run again. */
export async function importInto(
  deps: Deps,
  tray: Tray,
  messages: AsyncIterable<Uint8Array>,
  options: ImportOptions,
): Promise<ImportReport> {
  let report: ImportReport = NOTHING_READ;
  let neighbour: Instant | null = null;
  let batch: Uint8Array[] = [];
  let batchBytes = 0;
  let storing: Promise<void> = Promise.resolve();
  let storedBefore: Promise<void> = Promise.resolve();
  let isStopped = false;
  const store = async (some: readonly Incoming[]) => {
    const groups = independentGroups(some, tiesOf, GROUPS).filter(({ length }) => length > 0);
    const kept = await Promise.all(groups.map((group) => ingestBatch(deps, tray, group, options.asHistory)));
    report = added(report, groups.flat(), kept.flat());
    isStopped = !(await options.goesOn(report));
  };
  // While a batch is stored the next two are parsed and read: neither the thread that parses nor the database waits.
  const flush = async () => {
    const full = batch;
    batch = [];
    batchBytes = 0;
    const parsed = deps.aside.parseMany(full);
    parsed.catch(() => {});
    await storedBefore;
    storedBefore = storing;
    storing = storing.then(async () => {
      const some = await parsed;
      if (full.length === 0 || isStopped) return;
      const incoming = await incomingOf(deps, full, some, { isHistory: options.asHistory, neighbour });
      neighbour = some.findLast(({ date }) => date !== null)?.date ?? neighbour;
      await store(incoming);
    });
    storing.catch(() => {});
  };
  try {
    for await (const raw of messages) {
      batch.push(raw);
      batchBytes += raw.byteLength;
      if (batch.length >= BATCH || batchBytes >= BATCH_BYTES) await flush();
      if (isStopped) break;
    }
  } catch (problem) {
    if (!(problem instanceof DamagedFile)) throw problem;
    report = { ...report, problem: problem.message };
  }
  const { problem } = report;
  await flush();
  await storing;
  if (problem === null) return report;
  return {
    ...report,
    problem: writtenDown(said("office.afterMessageByte", { read: report.read, byte: report.bytesRead, problem })),
  };
}

/** A message of the past as it comes in from a file: nobody has to sort it, and no rule acts on it. */
export async function incomingPast(deps: Deps, raw: Uint8Array, receivedAt: Instant): Promise<Incoming> {
  const message = await deps.aside.parse(raw);
  const envelope = { signatures: [], colleagues: await cachedColleagues(deps), recipients: [], envelopeSender: "" };
  return { message, raw, receivedAt, imported: true, isHistory: true, ...envelope };
}

async function incomingOf(
  deps: Deps,
  raws: readonly Uint8Array[],
  messages: readonly MailMessage[],
  { isHistory, neighbour }: { readonly isHistory: boolean; readonly neighbour: Instant | null },
): Promise<Incoming[]> {
  const envelope = { signatures: [], colleagues: await cachedColleagues(deps), recipients: [], envelopeSender: "" };
  const now = deps.now();
  const dates = timesByNeighbours(
    messages.map(({ date }) => date),
    neighbour,
  );
  return messages.flatMap((message, at): Incoming[] => {
    const raw = raws[at];
    const receivedAt = message.date === null ? (dates[at] ?? now) : now;
    return raw === undefined ? [] : [{ message, raw, receivedAt, imported: true, isHistory, ...envelope }];
  });
}

// Whatever may decide in which conversation a message goes: ids, and for answers without any the subject and its codes.
function tiesOf({ message }: Incoming): string[] {
  const { base } = baseSubject(message.subject);
  const subjects = [...(base === "" ? [] : [base]), ...recordCodesIn(message.subject)];
  return [...message.reportedIds, ...threadIds(message), ...subjects.map((subject) => `about ${subject}`)];
}

function added(before: ImportReport, batch: readonly Incoming[], isNew: readonly boolean[]): ImportReport {
  const news = isNew.filter(Boolean).length;
  return {
    ...before,
    read: before.read + batch.length,
    added: before.added + news,
    knownAlready: before.knownAlready + batch.length - news,
    flagged: before.flagged + batch.filter(({ message }, at) => isNew[at] && message.warnings.length > 0).length,
    bytesRead: before.bytesRead + batch.reduce((sum, { raw }) => sum + raw.byteLength, 0),
  };
}

// deadlock_detected (PostgreSQL, appendix A): mail that comes in at the same moment waits for the ids in another order.
const DEADLOCK = "40P01";

async function ingestBatch(deps: Deps, tray: Tray, batch: readonly Incoming[], asHistory: boolean): Promise<boolean[]> {
  try {
    return await ingestTogether(deps, tray, batch, asHistory);
  } catch (problem) {
    if ((problem as { code?: unknown }).code !== DEADLOCK) throw problem;
    const kept: boolean[] = [];
    for (const one of batch) kept.push(...(await ingestTogether(deps, tray, [one], asHistory)));
    return kept;
  }
}

async function ingestTogether(
  deps: Deps,
  tray: Tray,
  batch: readonly Incoming[],
  asHistory: boolean,
): Promise<boolean[]> {
  const touched = new Set<ConversationId>();
  const isNew = await inTransaction(deps.db, async (trx) => {
    const news: boolean[] = [];
    for (const { outcome, conversationId } of await ingestMessages(trx, deps, tray, batch)) {
      news.push(outcome !== "known-already");
      if (outcome !== "known-already") touched.add(conversationId);
    }
    if (asHistory) await settleAll(trx, deps, tray, [...touched]);
    return news;
  });
  for (const conversationId of touched) deps.publishChange({ trayId: tray.id, conversationId });
  return isNew;
}

const SETTLED: readonly Effect[] = [{ kind: "settled" }];

async function settleAll(trx: Transaction, deps: Within, tray: Tray, ids: readonly ConversationId[]): Promise<void> {
  const held = await lockConversations(trx, tray.id, ids);
  const facts = await factsOf(trx, ids);
  const changes = held.map((conversation) => ({
    conversation,
    known: facts.get(conversation.id) ?? NOTHING_HAPPENED,
    effects: SETTLED,
  }));
  await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
}
