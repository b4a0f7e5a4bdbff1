import type { ConversationId, RecordId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { isDue, type Term } from "../../core/retention/term";
import { termInWords } from "../../core/retention/term-in-words";
import { calendarDay } from "../../core/time/calendar-day";
import { grantsOf, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import {
  allFiledOn,
  type BegunDisposal,
  beginDisposal,
  type Certificate,
  lockRecord,
  lockRegister,
  type Named,
  type NewDisposalItem,
  namedForDisposal,
  previewsOf,
  type RegisterRecord,
  recordsByIds,
  recordsUnder,
  recordTypes,
  registerRecords,
  retentionPolicies,
  savePreview,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import type { Asking, Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import type { Refusal } from "../refusals/refusal";
import { carryOutDisposal, goOnDisposing } from "./carry-out-disposal";
import { ANNOUNCED_MS, termsNow } from "./retention";

const said = saidOf(recordsTexts);

/** What would go with a record, as it is shown before anything does; `previewId` is to be named when it is disposed of. */
export type DisposalPreview = { readonly previewId: string; readonly named: Named; readonly term: Term };

/** Shows what would go with a record whose term is over, and keeps that it was shown. For those who lead. */
export async function previewDisposal(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
): Promise<Result<DisposalPreview, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused<DisposalPreview, Refusal>(deps.db, async (trx) => {
    const [record] = await recordsByIds(trx, grant, [id]);
    if (record === undefined) return err({ kind: "no-such", what: "record" });
    const term = await dueTerm({ ...deps, db: trx }, grant.tray.timeZone, id);
    if (term === null) return err({ kind: "not-due", code: record.code });
    const named = await namedForDisposal(trx, id);
    const previewId = deps.newId();
    await savePreview(trx, id, { id: previewId, at: deps.now(), by: grant.memberId }, named);
    return ok({ previewId, named, term });
  });
}

async function dueTerm(deps: Asking, zone: string, id: RecordId): Promise<Term | null> {
  const term = (await termsNow(deps, zone, id)).terms.get(id);
  return term !== undefined && isDue(term, deps.now()) ? term : null;
}

/**
 * Disposes of a record whose term is over: it goes with what stands on it alone, from the database, the search and the
 * bytes; what another record needs is taken off it and stays. Only what the named preview showed: where anything is
 * otherwise by then, nothing goes. From there on nobody finds the record, its conversations go some at a time, and a
 * certificate says in the end what went.
 */
export async function disposeOf(
  deps: Deps,
  grant: TrayGrant,
  who: { readonly name: string },
  id: RecordId,
  previewId: string,
): Promise<Result<Certificate, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return dispose(deps, { zone: grant.tray.timeZone, grant, byName: who.name }, id, previewId);
}

type Disposing = {
  readonly zone: string;
  /** Whose decision it is; null for the tray itself. */
  readonly grant: TrayGrant | null;
  readonly byName: string;
};

async function dispose(
  deps: Deps,
  { zone, grant, byName }: Disposing,
  id: RecordId,
  previewId: string,
): Promise<Result<Certificate, Refusal>> {
  // Read before anything is held: what changes meanwhile is of another version than was read, and stays.
  const named = await namedForDisposal(deps.db, id);
  const begun = await inTransactionUnlessRefused<BegunDisposal, Refusal>(deps.db, async (trx) => {
    const within = { ...deps, db: trx };
    await lockRegister(trx);
    await lockRecord(trx, id);
    const [record] = await registerRecords(trx, grant, [id]);
    if (record === undefined || record.mergedInto !== null) return err({ kind: "no-such", what: "record" });
    const term = await dueTerm(within, zone, id);
    if (term === null) return err({ kind: "not-due", code: record.code });
    const preview = (await previewsOf(trx, [id])).get(id);
    const isAsShown =
      preview?.id === previewId && preview.digest === named.digest && preview.elsewhere === named.elsewhere.length;
    if (preview === undefined || !isAsShown) return err({ kind: "not-as-shown" });
    const refusal = await disposalRefusal(within, grant, record, named);
    if (refusal !== null) return err(refusal);
    const kind = (await recordTypes(trx)).find((type) => type.id === record.typeId)?.name ?? "";
    const { until, why } = termInWords(term, (at) => calendarDay(at, zone));
    const { code, title, viewers } = record;
    const words = { code, title, kind: kind.toLowerCase(), why: writtenDown({ all: [until, why], by: "comma" }) };
    const head = { id: deps.newId(), byName, previewedAt: preview.at, ...words };
    const disposal = { recordId: id, byMemberId: grant?.memberId ?? null, head, viewers };
    await beginDisposal(trx, disposal, itemsOf(named, await allFiledOn(trx, id, Number.MAX_SAFE_INTEGER)), deps.now());
    return ok(disposal);
  });
  if (!begun.ok) return begun;
  if (grant !== null) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return ok(await carryOutDisposal(deps, begun.value));
}

function itemsOf(named: Named, filed: readonly ConversationId[]): NewDisposalItem[] {
  const [going, staying] = [
    new Map(named.goes.map((one) => [one.id, one])),
    new Set(named.elsewhere.map(({ id }) => id)),
  ];
  return filed.map((id) => {
    const goes = going.get(id);
    return {
      id,
      version: goes?.version ?? 0,
      goes: goes !== undefined,
      isWhole: goes !== undefined || staying.has(id),
    };
  });
}

async function disposalRefusal(
  deps: Asking,
  grant: TrayGrant | null,
  { id, code }: RegisterRecord,
  { open, goes, elsewhere }: Named,
): Promise<Refusal | null> {
  if (open > 0) return { kind: "open-on-record", code, count: open };
  if ((await recordsUnder(deps.db, null, id)).length > 0) return { kind: "records-under", code };
  if (grant === null) return null;
  const led = (await grantsOf(deps.db, grant.memberId, deps.now())).filter(({ role }) => role === "lead");
  const leads = new Set<string>(led.map(({ tray }) => tray.id));
  return [...goes, ...elsewhere].every(({ trayId }) => leads.has(trayId)) ? null : { kind: "leads-of-all-only" };
}

/**
 * Announces what is to go by itself, and disposes of what was announced a week ago and is still as it was then. Gives how
 * many records went.
 */
export async function disposeByItself(deps: Deps, zone = "UTC"): Promise<number> {
  await goOnDisposing(deps);
  const policies = await retentionPolicies(deps.db);
  if (!policies.some(({ endsIn }) => endsIn === "disposal")) return 0;
  const { all, terms } = await termsNow(deps, zone);
  const due = all.filter(({ id }) => {
    const term = terms.get(id);
    return term?.kind === "until" && term.endsIn === "disposal" && isDue(term, deps.now());
  });
  const previews = await previewsOf(
    deps.db,
    due.map(({ id }) => id),
  );
  let count = 0;
  for (const { id } of due) {
    const preview = previews.get(id);
    if (preview !== undefined && preview.by === null && preview.at + ANNOUNCED_MS > deps.now()) continue;
    if (preview?.by === null) {
      const done = await dispose(
        deps,
        { zone, grant: null, byName: writtenDown(said("records.theTrayByItsPolicy")) },
        id,
        preview.id,
      );
      if (done.ok) {
        count += 1;
        continue;
      }
    }
    // Not yet announced, or otherwise since: it is announced anew, and has another week.
    await announce(deps, id);
  }
  return count;
}

async function announce(deps: Deps, id: RecordId): Promise<void> {
  await inTransactionUnlessRefused<null, never>(deps.db, async (trx) => {
    await savePreview(trx, id, { id: deps.newId(), at: deps.now(), by: null }, await namedForDisposal(trx, id));
    return ok(null);
  });
}
