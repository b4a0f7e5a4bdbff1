import type { Evidence } from "../../core/filing/evidence";
import { judge } from "../../core/filing/judge";
import { type Proposal, propose } from "../../core/filing/propose";
import { amongThoseThere } from "../../core/filing/those-there";
import type { ConversationId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { ListFilter } from "../../core/lists/filter";
import { inRunOrder, type RunOrder } from "../../core/lists/run-order";
import { OPEN_STANDINGS, type Scope } from "../../core/lists/scope";
import { type Member, type TrayGrant, timesOffNow } from "../../storage/access/index";
import { evidenceFor } from "../../storage/facts/index";
import type { ListedRow, SheetRow } from "../../storage/lists/index";
import { type FilingRecord, recordsByIds } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { howSureFor } from "../people/settings";
import { markSeen, type OpenConversation, openConversation } from "../reading/open-conversation";
import { countInList, moreOfList } from "./list-conversations";

// Fetched at once; the next follow as these come to their end.
const MAX_IN_RUN = 500;

/** What a sort run goes through next, in its order, and how many conversations there are in all. */
export type RunPart = { readonly rows: readonly ListedRow[]; readonly total: number };

/** The part of a sort run that comes next. */
export async function sortRun(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  { scope, filter, order }: { readonly scope: Scope; readonly filter: ListFilter; readonly order: RunOrder },
): Promise<RunPart> {
  const view = { order: "date" as const, reversed: order === "oldest", grouping: null };
  const page = { lane: "", after: null, limit: MAX_IN_RUN };
  const [rows, total] = await Promise.all([
    moreOfList(deps, grant, member, { scope, filter, view }, page),
    countInList(deps, grant, member, { scope, filter, view }),
  ]);
  return { rows: inRunOrder(rows, order), total };
}

/** A conversation, and what could be decided about it. */
export type ProposedFor = {
  readonly proposals: readonly Proposal[];
  /** The records that are proposed. */
  readonly records: readonly FilingRecord[];
};

/** A conversation of a run: everything on it, and what could be decided about it. */
export type RunConversation = ProposedFor & { readonly open: OpenConversation };

/** Gets a conversation ready for its turn in a run, without counting it as read; null when the tray has none of this id. */
export async function readyForRun(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<RunConversation | null> {
  const open = await openConversation(deps, grant, id, "ahead");
  return open === null ? null : { open, ...(await proposalsFor(deps, grant, open.row)) };
}

// What a tray has put away has been decided about.
const OPEN: ReadonlySet<string> = new Set(OPEN_STANDINGS);

/** What could be decided about an open conversation of a tray, with the reasons; nothing that would be refused. */
export async function proposalsFor(deps: Deps, grant: TrayGrant, row: SheetRow): Promise<ProposedFor> {
  const now = deps.now();
  const known = OPEN.has(row.standing) ? await evidenceFor(deps.db, grant, row.id, now) : null;
  if (known === null) return { proposals: [], records: [] };
  const [records, timesOff, howSure] = await Promise.all([
    recordsByIds(deps.db, grant, [...known.evidence.open.keys()]),
    timesOffNow(deps.db, now),
    howSureFor(deps, grant),
  ]);
  const evidence = acceptable(known.evidence, { grant, row, now, records, timesOff });
  return { proposals: propose(judge(known.asked, evidence), evidence, row, howSure), records };
}

type Around = {
  readonly grant: TrayGrant;
  readonly row: SheetRow;
  readonly now: Instant;
  readonly records: readonly FilingRecord[];
  readonly timesOff: Awaited<ReturnType<typeof timesOffNow>>;
};

/** The evidence for what whoever asks could accept: records that they may know of, and colleagues who are there. */
function acceptable(evidence: Evidence, { grant, row, now, records, timesOff }: Around): Evidence {
  // What was learned from everybody's filing must not tell of a record that whoever asks may not know of.
  const open = new Map(records.filter(({ closed }) => !closed).map(({ id, title }) => [id, title]));
  return amongThoseThere({ ...evidence, open }, { trayId: grant.tray.id, recordIds: row.recordIds }, now, timesOff);
}

/** Counts a conversation as read: it has come up in a run. */
export function cameUp(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<void> {
  return markSeen(deps, grant, id);
}
