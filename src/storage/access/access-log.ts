import type { AccessDeed, AccessDeedKind } from "../../core/access/access-event";
import type { MemberId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import { SEEN } from "./record-access";
import type { TrayGrant } from "./trays";

/** Something about signing in, rights, or taking mail out, to be kept. */
export type NewAccessEvent = {
  readonly id: string;
  readonly at: Instant;
  readonly deed: AccessDeed;
  /** The tray that it is about; null where it is about signing in. */
  readonly trayId: TrayId | null;
  /** Who did it; null for the operator, and for whoever failed to sign in. */
  readonly by: MemberId | null;
  /** To whom it was done. */
  readonly about: MemberId | null;
  readonly address: string;
  readonly device: string;
};

/** Such a thing as it is shown, with people by name. */
export type AccessEvent = Pick<NewAccessEvent, "id" | "at" | "deed" | "address" | "device"> & {
  readonly byName: string | null;
  readonly aboutName: string | null;
  /** The code of the record that it is about, where whoever asks may know of that. */
  readonly recordCode: string | null;
};

/** What is asked for of the log: kinds, what one member did or had done, and what came before an event. */
export type AccessFilter = {
  readonly kinds: readonly AccessDeedKind[] | null;
  readonly memberId: MemberId | null;
  readonly before: { readonly at: Instant; readonly id: string } | null;
};

/** Keeps what somebody did. */
export async function addAccessEvent(db: Database, event: NewAccessEvent): Promise<void> {
  const { id, deed, trayId, by, about, address, device } = event;
  await knexOf(db)("access_event").insert({
    id,
    at: param(event.at),
    kind: deed.kind,
    deed: JSON.stringify(deed),
    tray_id: trayId,
    by_member_id: by,
    about_member_id: about,
    record_id: deed.kind === "record-access-changed" ? deed.recordId : null,
    address,
    device,
  });
}

// Signing in is of no tray: it shows where the member is, and where it is nobody's in all of them.
const SHOWN = /* sql */ `(event.tray_id = :trayId or event.tray_id is null and (
  (event.by_member_id is null and event.about_member_id is null)
  or exists (select from tray_member where tray_member.tray_id = :trayId
    and tray_member.member_id in (event.by_member_id, event.about_member_id))))`;

type Row = {
  id: string;
  at: Date;
  deed: AccessDeed;
  address: string;
  device: string;
  by_name: string | null;
  about_name: string | null;
  record_code: string | null;
};

/** The newest of what is kept about a tray and its members, at most `limit`. For those who lead it. */
export async function accessEvents(
  db: Database,
  grant: TrayGrant,
  { kinds, memberId, before }: AccessFilter,
  limit: number,
): Promise<AccessEvent[]> {
  const found = await ask<Row>(
    db,
    /* sql */ `
    select event.id, event.at, event.deed, event.address, event.device,
      by_member.name as by_name, about_member.name as about_name, record.code as record_code
    from access_event as event
      left join member as by_member on by_member.id = event.by_member_id
      left join member as about_member on about_member.id = event.about_member_id
      left join record on record.id = event.record_id and ${SEEN}
    where ${SHOWN}
      ${kinds === null ? "" : "and event.kind = any(:kinds)"}
      ${memberId === null ? "" : "and :whose in (event.by_member_id, event.about_member_id)"}
      ${before === null ? "" : "and (event.at, event.id) < (:beforeAt, :beforeId)"}
    order by event.at desc, event.id desc limit :limit`,
    {
      trayId: grant.tray.id,
      memberId: grant.memberId,
      limit,
      ...(kinds === null ? {} : { kinds: [...kinds] }),
      ...(memberId === null ? {} : { whose: memberId }),
      ...(before === null ? {} : { beforeAt: param(before.at), beforeId: before.id }),
    },
  );
  return found.map(({ by_name, about_name, record_code, ...row }) => ({
    ...row,
    at: at(row.at),
    byName: by_name,
    aboutName: about_name,
    recordCode: record_code,
  }));
}

/** Forgets what was kept before a moment. */
export async function forgetAccessEventsBefore(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("access_event").where("at", "<", param(before)).delete();
}
