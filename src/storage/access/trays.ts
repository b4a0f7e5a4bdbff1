import { type Covering, coveredBy } from "../../core/cover/covering";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { param } from "../base/rows";
import type { Role } from "./members";
import { timesOffNow } from "./times-off";

export type Tray = {
  readonly id: TrayId;
  /** Its name in URLs. */
  readonly slug: string;
  readonly name: string;
  readonly timeZone: string;
  /** The first is the one it writes from. */
  readonly addresses: readonly EmailAddress[];
};

declare const granted: unique symbol;

/**
 * The proof that a member may look into a tray. Every question about a tray takes one, and the only way to one is
 * `grantTray`, so there is no way to ask that skips the check.
 */
export type TrayGrant = {
  readonly tray: Tray;
  readonly memberId: MemberId;
  readonly role: Role;
  /** What she covers for absent colleagues here, as of when the grant was given. */
  readonly covering: readonly Covering[];
  readonly [granted]: true;
};

/** A tray that a member may look into, as `TRAYS_OF_MEMBER` gives it. */
export type TrayRow = { id: string; slug: string; name: string; time_zone: string; addresses: string[]; role: Role };

const ADDRESSES =
  "(select array_agg(address order by position) from tray_address where tray_address.tray_id = tray.id) as addresses";

function trayOf(row: TrayRow): Tray {
  return {
    id: trustedId<TrayId>(row.id),
    slug: row.slug,
    name: row.name,
    timeZone: row.time_zone,
    addresses: (row.addresses ?? []) as EmailAddress[],
  };
}

/** The trays of members with their roles, to be filtered to one member. */
export const TRAYS_OF_MEMBER = /* sql */ `
  select tray.id, tray.slug, tray.name, tray.time_zone, tray.created_at, tray_member.role, ${ADDRESSES} from tray
    join tray_member on tray_member.tray_id = tray.id`;

/** The trays a member may look into, each with its grant, by name. */
export async function grantsOf(db: Database, memberId: MemberId, now: Instant): Promise<TrayGrant[]> {
  const asked = runPrepared<TrayRow>(
    db,
    `${TRAYS_OF_MEMBER} where tray_member.member_id = :memberId order by tray.created_at, tray.slug`,
    { memberId },
  );
  const [rows, timesOff] = await Promise.all([asked, timesOffNow(db, now)]);
  return grantsFrom(rows, memberId, now, timesOff);
}

/** The grants for the trays of a member, who has just been looked up with them; what they cover is as of now. */
export function grantsFrom(
  rows: readonly TrayRow[],
  memberId: MemberId,
  now: Instant,
  timesOff: Parameters<typeof coveredBy>[3],
): TrayGrant[] {
  return rows.map((row) => {
    const tray = trayOf(row);
    return { tray, memberId, role: row.role, covering: coveredBy(memberId, tray.id, now, timesOff) } as TrayGrant;
  });
}

/** Every tray, by slug. */
export async function allTrays(db: Database): Promise<Tray[]> {
  const builder = knexOf(db);
  const rows: TrayRow[] = await builder("tray")
    .select("id", "slug", "name", "time_zone", builder.raw(ADDRESSES))
    .orderBy("slug");
  return rows.map(trayOf);
}

/** Whether all members of a tray may create and change its categories, or only those who lead it. */
export async function mayMembersChangeCategories(db: Database, { id }: Pick<Tray, "id">): Promise<boolean> {
  const row = await knexOf(db)("tray").select("categories_by").where("id", id).first();
  return row?.categories_by === "members";
}

/** Says who may create and change the categories of a tray. */
export async function letMembersChangeCategories(db: Database, { id }: Pick<Tray, "id">, may: boolean): Promise<void> {
  await knexOf(db)("tray")
    .where("id", id)
    .update({ categories_by: may ? "members" : "leads" });
}

/** Adds a tray with its addresses. */
export async function addTray(db: Database, tray: Tray & { createdAt: Instant }): Promise<void> {
  const builder = knexOf(db);
  await builder("tray").insert({
    id: tray.id,
    slug: tray.slug,
    name: tray.name,
    time_zone: tray.timeZone,
    created_at: param(tray.createdAt),
  });
  await builder("tray_address").insert(
    tray.addresses.map((address, position) => ({ address, tray_id: tray.id, position })),
  );
}

/** The right of a member to look into a tray; null when she has none. */
export async function grantOfMember(
  db: Database,
  memberId: MemberId,
  trayId: TrayId,
  now: Instant,
): Promise<TrayGrant | null> {
  const grants = await grantsOf(db, memberId, now);
  return grants.find(({ tray }) => tray.id === trayId) ?? null;
}
