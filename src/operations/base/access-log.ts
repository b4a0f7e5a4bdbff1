import { ACCESS_GROUPS, type AccessDeed, type AccessGroup, type ExportedThing } from "../../core/access/access-event";
import { accessDeedInWords } from "../../core/access/deed-in-words";
import type { MemberId, TrayId } from "../../core/kernel/ids";
import { type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  type AccessFilter,
  accessEvents,
  addAccessEvent,
  forgetAccessEventsBefore,
  type TrayGrant,
} from "../../storage/access/index";
import type { Database } from "../../storage/base/index";
import { journalTexts } from "../../texts/en/journal";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import type { Refusal } from "../refusals/refusal";
import type { Deps, Within } from "./deps";

const said = saidOf(journalTexts);

/** Whom something was done by and to, and in which tray; null for none. */
export type Concerned = {
  readonly trayId?: TrayId | null;
  readonly by?: MemberId | null;
  readonly about?: MemberId | null;
};

const PAGE = 60;
const MOST_DEVICE = 300;

/** Keeps that somebody came in, failed to, changed rights, or took mail out: in the transaction that does it, where there is one. */
export function noteAccess(
  db: Database,
  { newId, now, from }: Within,
  deed: AccessDeed,
  { trayId = null, by = null, about = null }: Concerned,
): Promise<void> {
  const { address, device } = from;
  const whose = { trayId, by, about, address, device: device.slice(0, MOST_DEVICE) };
  return addAccessEvent(db, { id: newId(), at: now(), deed, ...whose });
}

/** Keeps that a member had a file made of a tray's mail or tables. */
export function noteExport(
  deps: Deps,
  { tray, memberId }: TrayGrant,
  what: ExportedThing,
  count: number,
  format: string,
): Promise<void> {
  return noteAccess(deps.db, deps, { kind: "exported", what, count, format }, { trayId: tray.id, by: memberId });
}

/** Something in the access log, as a sentence. */
export type LoggedAccess = {
  readonly id: string;
  readonly at: Instant;
  readonly who: Sayable;
  readonly did: Said;
  readonly address: string;
  readonly device: string;
};

export type AccessLogPage = {
  readonly events: readonly LoggedAccess[];
  readonly hasMore: boolean;
  /** For how long it is kept, in milliseconds. */
  readonly keptMs: number;
};

/** The newest of the access log of a tray and its members. For those who lead it. */
export async function getAccessLog(
  deps: Deps,
  grant: TrayGrant,
  { group, ...filter }: Omit<AccessFilter, "kinds"> & { readonly group: AccessGroup | null },
): Promise<Result<AccessLogPage, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const kinds = group === null ? null : ACCESS_GROUPS[group];
  const found = await accessEvents(deps.db, grant, { ...filter, kinds }, PAGE + 1);
  const events = found
    .slice(0, PAGE)
    .map(({ id, at, deed, address, device, byName, aboutName, recordCode }): LoggedAccess => {
      const isStranger = deed.kind === "sign-in-failed" && byName === null;
      const who = byName ?? (isStranger ? said("journal.somebodyElse") : said("journal.theOperator"));
      return { id, at, who, did: accessDeedInWords(deed, { about: aboutName, recordCode }), address, device };
    });
  return ok({ events, hasMore: found.length > PAGE, keptMs: deps.accessLogKeptMs });
}

/** Forgets what was kept for its term. */
export function forgetAccess(deps: Deps): Promise<void> {
  return forgetAccessEventsBefore(deps.db, later(deps.now(), -deps.accessLogKeptMs));
}
