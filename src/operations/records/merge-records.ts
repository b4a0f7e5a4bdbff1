import { deriveDocket } from "../../core/docket/derive-docket";
import { filingOn } from "../../core/docket/filing-on";
import type { Effect } from "../../core/journal/entry";
import { type BatchId, type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { withAllAbove } from "../../core/records/register-entry";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { refreshViewers, type TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { conversationsHeld, factsOf } from "../../storage/facts/index";
import { allFiledOn, type RegisterRecord, repointRecord, saveRecords } from "../../storage/records/index";
import { keepRuleVersions } from "../../storage/rules/index";
import { recordsTexts } from "../../texts/en/records";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import { type Held, onRecord, type RecordRefusal, writeDown } from "./records";

const said = saidOf(recordsTexts);

/** What a merge did: the record that is left, and how many conversations came to it. */
export type Merged = { readonly into: RegisterRecord; readonly conversations: number };

// In one step, so that nothing is on neither of the two; more is filed from there to here by hand first.
const MOST = 20_000;
const STEP = 500;

/**
 * Merges a record into another: what is filed on it is filed there, with its particulars, what stands under it stands there,
 * its people, places on shelves, rules and covers go along; its code leads there from then on. For those who lead a tray,
 * and only between records that the same people may know of, so that nothing comes to be known by others.
 */
export function mergeRecords(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  intoId: RecordId,
): Promise<Result<Merged, RecordRefusal>> {
  return onRecord(deps, grant, id, async (trx, { record, known }): Promise<Result<Merged, RecordRefusal>> => {
    const target = known.get(intoId);
    const refusal = mergeRefusal(grant, { record, known }, target);
    if (refusal !== null || target === undefined) return err(refusal ?? { kind: "no-such", what: "record" });
    const filed = await allFiledOn(trx, id, MOST + 1);
    if (filed.length > MOST) return err({ kind: "too-many", most: MOST });
    const into = {
      ...target,
      addresses: [...new Set([...target.addresses, ...record.addresses])],
      version: target.version + 1,
    };
    await saveRecords(trx, [
      into,
      { ...record, mergedInto: intoId, closedAt: record.closedAt ?? deps.now(), version: record.version + 1 },
    ]);
    await repointRecord(trx, id, intoId);
    await keepRuleVersions(trx, grant.memberId, deps.now());
    const batchId = trustedId<BatchId>(deps.newId());
    for (let at = 0; at < filed.length; at += STEP)
      await refile(trx, deps, grant, batchId, filed.slice(at, at + STEP), { from: id, into: intoId });
    await refreshViewers(trx);
    await writeDown(trx, deps, grant.memberId, [id], said("records.mergedItInto", { code: into.code }));
    await writeDown(
      trx,
      deps,
      grant.memberId,
      [intoId],
      said("records.tookIn", { code: record.code, title: record.title }),
    );
    return ok({ into, conversations: filed.length });
  });
}

function mergeRefusal(
  grant: TrayGrant,
  { record, known }: Held,
  target: RegisterRecord | undefined,
): RecordRefusal | null {
  if (grant.role !== "lead") return { kind: "leads-only" };
  if (target === undefined) return { kind: "no-such", what: "record" };
  if (target.closedAt !== null) return { kind: "record-closed", code: target.code };
  const above = withAllAbove(target.id, known);
  if (above.some(({ id }) => id === record.id)) {
    return { kind: "problems", problems: { code: said("records.itCannotBecomeAPart") } };
  }
  const isKnownAlike = JSON.stringify(record.viewers) === JSON.stringify(target.viewers);
  return isKnownAlike ? null : { kind: "other-access", code: target.code };
}

async function refile(
  trx: Transaction,
  deps: Within,
  { memberId }: TrayGrant,
  batchId: BatchId,
  ids: readonly ConversationId[],
  records: { readonly from: RecordId; readonly into: RecordId },
): Promise<void> {
  const held = await conversationsHeld(trx, ids);
  const facts = await factsOf(trx, ids);
  const changes = held.map((conversation) => {
    const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
    return { conversation, known, effects: refiled(known, records) };
  });
  await carryOut(trx, deps, memberId, batchId, changes);
}

// With the particulars that were given when it was filed there.
function refiled(
  known: ConversationFacts,
  { from, into }: { readonly from: RecordId; readonly into: RecordId },
): Effect[] {
  const { recordIds, filedParts } = deriveDocket(known);
  const filing = filingOn(known.entries, from);
  const isOn = recordIds.includes(from);
  const there: Effect[] =
    !isOn || recordIds.includes(into) || filing === null ? [] : [{ kind: "filed", ...filing, recordId: into }];
  const parts = filedParts.flatMap(({ at: _, by: _by, ...part }): Effect[] => {
    if (part.recordId !== from) return [];
    const { messageId, attachment } = part;
    return [
      { kind: "part-filed", ...part, recordId: into },
      { kind: "part-unfiled", recordId: from, messageId, attachment },
    ];
  });
  return [...there, ...(isOn ? [{ kind: "unfiled", recordId: from } as const] : []), ...parts];
}
