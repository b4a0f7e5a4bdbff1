import { type PolicyId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { checkedPolicy, type RetentionPolicy } from "../../core/retention/policy";
import { isDue, type Term, termsOf } from "../../core/retention/term";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import { categoriesOf } from "../../storage/facts/index";
import {
  addHold,
  bearersOfPolicies,
  type Certificate,
  certificatesFor,
  endHold,
  givePolicy,
  type Hold,
  holdsOf,
  keepRecordUntil,
  lockRegister,
  type PolicyBearer,
  type Preview,
  policiesGiven,
  previewsOf,
  type Retained,
  recordsByIds,
  recordTypes,
  removeRetentionPolicy,
  retainedRecords,
  retentionPolicies,
  saveRetentionPolicy,
} from "../../storage/records/index";
import { recordsTexts } from "../../texts/en/records";
import { type Said, saidOf } from "../../texts/said";
import type { Asking, Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { writeDown } from "./records";

const said = saidOf(recordsTexts);

/** A record with its term, and what was last shown of its disposal. */
export type RetainedLine = Pick<Retained, "id" | "code" | "title" | "kind" | "filed"> & {
  readonly term: Term;
  readonly preview: Preview | null;
  /** When it goes by itself; null where somebody has to look at it. */
  readonly goesAt: Instant | null;
};

/** How long the records of the register are kept, as those who lead look after it. */
export type Retention = {
  readonly policies: readonly (RetentionPolicy & { readonly bearers: number })[];
  readonly types: readonly { readonly id: string; readonly name: string; readonly policyId: PolicyId | null }[];
  readonly categories: readonly { readonly id: string; readonly name: string; readonly policyId: PolicyId | null }[];
  /** Records whose term is over, the longest over first. */
  readonly due: readonly RetainedLine[];
  /** Those whose term will be within a year, the soonest first. */
  readonly coming: readonly RetainedLine[];
  readonly held: readonly RetainedLine[];
  readonly certificates: readonly Certificate[];
};

const COMING_MS = 365 * DAY;
/** How long after it was announced something goes that nobody has to look at. */
export const ANNOUNCED_MS = 7 * DAY;

/** The terms of all records, or (`around`) of those that one's depends on; told from all mail, whoever may know of it. */
export async function termsNow(
  deps: Asking,
  zone: string,
  around: RecordId | null = null,
): Promise<{ all: Retained[]; terms: Map<RecordId, Term> }> {
  const all = await retainedRecords(deps.db, around);
  return { all, terms: termsOf(all, zone) };
}

/** Everything about how long records are kept, of those that the member may know of. */
export async function getRetention(deps: Deps, grant: TrayGrant): Promise<Retention> {
  const { all, terms } = await termsNow(deps, grant.tray.timeZone);
  const [hers, policies, bearers, types, categories, given, certificates] = await Promise.all([
    recordsByIds(
      deps.db,
      grant,
      all.map(({ id }) => id),
    ),
    retentionPolicies(deps.db),
    bearersOfPolicies(deps.db),
    recordTypes(deps.db),
    categoriesOf(deps.db, grant.tray.id),
    policiesGiven(deps.db),
    certificatesFor(deps.db, grant.memberId),
  ]);
  const isHers = new Set(hers.map(({ id }) => id));
  const known = all.filter(({ id }) => isHers.has(id));
  const now = deps.now();
  const due = known.filter(({ id }) => isDueOf(terms, id, now));
  const previews = await previewsOf(
    deps.db,
    due.map(({ id }) => id),
  );
  const line = ({ id, code, title, kind, filed }: Retained): RetainedLine => {
    const term = terms.get(id) ?? { kind: "for-good", under: null };
    const preview = previews.get(id) ?? null;
    const isByItself = term.kind === "until" && term.endsIn === "disposal" && preview?.by === null;
    const goesAt = isByItself && preview !== null ? later(preview.at, ANNOUNCED_MS) : null;
    return { id, code, title, kind, filed, term, preview, goesAt };
  };
  const endOf = ({ term }: RetainedLine) => (term.kind === "until" ? term.at : 0);
  const inOrder = (some: readonly Retained[]) => some.map(line).toSorted((a, b) => endOf(a) - endOf(b));
  return {
    policies: policies.map((policy) => ({ ...policy, bearers: bearers.get(policy.id) ?? 0 })),
    types: types.map(({ id, name }) => ({ id, name, policyId: given.types.get(id) ?? null })),
    categories: categories.map(({ id, name }) => ({ id, name, policyId: given.categories.get(id) ?? null })),
    due: inOrder(due),
    coming: inOrder(known.filter(({ id }) => !isDueOf(terms, id, now) && isDueOf(terms, id, later(now, COMING_MS)))),
    held: inOrder(known.filter(({ id }) => terms.get(id)?.kind === "held")),
    certificates,
  };
}

const isDueOf = (terms: ReadonlyMap<RecordId, Term>, id: RecordId, now: Instant) => {
  const term = terms.get(id);
  return term !== undefined && isDue(term, now);
};

/** How long one record is kept: its term, its own policy, what holds it. */
export type RecordRetention = {
  readonly term: Term;
  readonly policyId: PolicyId | null;
  readonly policies: readonly RetentionPolicy[];
  readonly holds: readonly Hold[];
};

export async function retentionOf(deps: Deps, grant: TrayGrant, id: RecordId): Promise<RecordRetention> {
  const { all, terms } = await termsNow(deps, grant.tray.timeZone, id);
  const [policies, holds] = await Promise.all([retentionPolicies(deps.db), holdsOf(deps.db, id)]);
  return {
    term: terms.get(id) ?? { kind: "for-good", under: null },
    policyId: all.find((one) => one.id === id)?.policyId ?? null,
    policies,
    holds,
  };
}

/** A refusal, or what is wrong with each field of a policy. */
export type PolicyRefusal =
  | Refusal
  | { readonly kind: "problems"; readonly problems: Readonly<Partial<Record<"name" | "period", Said>>> };

/** Keeps a policy, new or changed; for those who lead. */
export async function editPolicy(
  deps: Deps,
  grant: TrayGrant,
  given: Omit<RetentionPolicy, "id"> & { readonly id: PolicyId | null },
): Promise<Result<RetentionPolicy, PolicyRefusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const checked = checkedPolicy({ ...given, id: given.id ?? trustedId<PolicyId>(deps.newId()) });
  if (!checked.ok) return err({ kind: "problems", problems: checked.error });
  const policy = checked.value;
  return inTransactionUnlessRefused<RetentionPolicy, PolicyRefusal>(deps.db, async (trx) => {
    const isNew = given.id === null;
    if (!isNew && !(await retentionPolicies(trx)).some(({ id }) => id === given.id))
      return err({ kind: "no-such", what: "policy" });
    if (!(await saveRetentionPolicy(trx, policy))) return err({ kind: "name-there", name: policy.name });
    return ok(policy);
  });
}

/** Takes a policy away that nothing bears any more. */
export async function removePolicy(deps: Deps, grant: TrayGrant, id: PolicyId): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused<null, Refusal>(deps.db, async (trx) => {
    const policy = (await retentionPolicies(trx)).find((one) => one.id === id);
    if (policy === undefined) return err({ kind: "no-such", what: "policy" });
    const count = (await bearersOfPolicies(trx)).get(id) ?? 0;
    if (count > 0) return err({ kind: "policy-borne", name: policy.name, count });
    await removeRetentionPolicy(trx, id);
    return ok(null);
  });
}

/** Gives a record, a type of records or a category a policy, or none; for those who lead. */
export async function bearPolicy(
  deps: Deps,
  grant: TrayGrant,
  bearer: PolicyBearer,
  id: string,
  policyId: PolicyId | null,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused<null, Refusal>(deps.db, async (trx) => {
    const policy = (await retentionPolicies(trx)).find((one) => one.id === policyId);
    if (policyId !== null && policy === undefined) return err({ kind: "no-such", what: "policy" });
    if (!(await isBearer({ ...deps, db: trx }, grant, bearer, id))) return err({ kind: "no-such", what: "record" });
    await givePolicy(trx, bearer, id, policyId);
    const words =
      policy === undefined
        ? said("records.tookItsOwnPolicyOff")
        : said("records.gaveItThePolicy", { name: policy.name });
    if (bearer === "record") await writeDown(trx, deps, grant.memberId, [trustedId<RecordId>(id)], words);
    return ok(null);
  });
}

async function isBearer(deps: Asking, grant: TrayGrant, bearer: PolicyBearer, id: string): Promise<boolean> {
  if (bearer === "record") return (await recordsByIds(deps.db, grant, [trustedId<RecordId>(id)])).length > 0;
  if (bearer === "record_type") return (await recordTypes(deps.db)).some((type) => type.id === id);
  return (await categoriesOf(deps.db, grant.tray.id)).some((category) => category.id === id);
}

/** Something done to one record by those who lead, which stands in its trail. */
async function onRetained(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  does: (trx: Parameters<typeof writeDown>[0]) => Promise<Result<Said, Refusal>>,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused<null, Refusal>(deps.db, async (trx) => {
    // A disposal that has begun is waited for, and then there is nothing left to hold.
    await lockRegister(trx);
    if ((await recordsByIds(trx, grant, [id])).length === 0) return err({ kind: "no-such", what: "record" });
    const did = await does(trx);
    if (!did.ok) return did;
    await writeDown(trx, deps, grant.memberId, [id], did.value);
    return ok(null);
  });
}

const MAX_REASON = 200;

/** Holds a record, so that neither it nor what stands under it goes. */
export function holdRecord(deps: Deps, grant: TrayGrant, id: RecordId, reason: string): Promise<Result<null, Refusal>> {
  const why = reason.trim().slice(0, MAX_REASON);
  return onRetained(deps, grant, id, async (trx) => {
    if (why === "") return err({ kind: "no-reason" });
    await addHold(trx, id, { id: deps.newId(), reason: why, at: deps.now(), by: grant.memberId });
    return ok(said("records.heldIt", { why }));
  });
}

/** Ends a hold. */
export function releaseRecord(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  holdId: string,
): Promise<Result<null, Refusal>> {
  return onRetained(deps, grant, id, async (trx) => {
    const reason = await endHold(trx, id, holdId);
    return reason === null ? err({ kind: "no-such", what: "record" }) : ok(said("records.endedTheHold", { reason }));
  });
}

/** Has a record kept longer than its policies say; somebody looks at it again then. */
export function keepLonger(
  deps: Deps,
  grant: TrayGrant,
  id: RecordId,
  until: Instant,
  day: string,
): Promise<Result<null, Refusal>> {
  return onRetained(deps, grant, id, async (trx) => {
    if (until <= deps.now()) return err({ kind: "date-is-past" });
    await keepRecordUntil(trx, id, until);
    return ok(said("records.lookedAtItAndHas", { day }));
  });
}
