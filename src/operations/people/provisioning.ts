import type { Category } from "../../core/categories/category";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type CategoryId, type MemberId, type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import {
  addTray,
  allMembers,
  allTrays,
  letIntoTray,
  type Member,
  type Role,
  addMember as storeMember,
  type Tray,
} from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { addCategories } from "../../storage/facts/index";
import { type MigrationReport, migrate } from "../../storage/migrations/migrate";
import { type FilingRecord, type RegisterRecord, recordTypes, saveRecords } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { hashPassword } from "./sign-in";

/** Brings the database up to date. */
export function migrateDatabase(deps: Deps): Promise<MigrationReport> {
  return migrate(deps.db);
}

/** Whether anything was set up here yet. */
export async function hasTrays(deps: Deps): Promise<boolean> {
  return (await allTrays(deps.db)).length > 0;
}

export type NewTray = {
  readonly slug: string;
  readonly name: string;
  readonly timeZone: string;
  readonly addresses: readonly EmailAddress[];
};

/** Sets up a tray. */
export async function setUpTray(deps: Deps, tray: NewTray): Promise<Tray> {
  const whole = { ...tray, id: trustedId<TrayId>(deps.newId()) };
  await inTransaction(deps.db, (trx) => addTray(trx, { ...whole, createdAt: deps.now() }));
  return whole;
}

export type NewMember = {
  readonly signInName: string;
  readonly name: string;
  readonly initials: string;
  readonly timeZone: string;
  readonly password: string;
  readonly role: Role;
  /** Slugs of the trays to let her into. */
  readonly trays: readonly string[];
};

/** Adds a member and lets her into trays: all of it, or nothing. */
export async function addMember(
  deps: Deps,
  member: NewMember,
): Promise<Result<Member, { kind: "name-taken" } | { kind: "no-such-tray"; slug: string }>> {
  const trays = await allTrays(deps.db);
  const missing = member.trays.find((slug) => !trays.some((tray) => tray.slug === slug));
  if (missing !== undefined) return err({ kind: "no-such-tray", slug: missing });
  const { signInName, name, initials, timeZone } = member;
  const added: Member = { id: trustedId<MemberId>(deps.newId()), signInName, name, initials, timeZone };
  const passwordHash = await hashPassword(member.password);
  const isNew = await inTransaction(deps.db, async (trx) => {
    if (!(await storeMember(trx, { ...added, passwordHash, createdAt: deps.now() }))) return false;
    for (const tray of trays.filter(({ slug }) => member.trays.includes(slug))) {
      await letIntoTray(trx, tray.id, added.id, member.role);
    }
    return true;
  });
  if (!isNew) return err({ kind: "name-taken" });
  deps.publishAccess(added.id);
  return ok(added);
}

/** Everybody who may sign in. */
export function listMembers(deps: Deps): Promise<Member[]> {
  return allMembers(deps.db);
}

export type NewCategory = Pick<Category, "code" | "name" | "ink"> &
  Partial<Pick<Category, "key" | "listed" | "description" | "retired">> & { readonly parentCode: string | null };

const USUAL = { trayId: null, key: null, description: "", listed: "open", retired: false } as const;

/** Sets up categories common to all trays, parents before their children. */
export async function setUpCategories(deps: Deps, categories: readonly NewCategory[]): Promise<Category[]> {
  const made = new Map<string, Category>();
  for (const { parentCode, ...category } of categories) {
    const parentId = parentCode === null ? null : (made.get(parentCode)?.id ?? null);
    made.set(category.code, { ...USUAL, ...category, id: trustedId<CategoryId>(deps.newId()), parentId });
  }
  await inTransaction(deps.db, (trx) => addCategories(trx, [...made.values()], deps.now()));
  return [...made.values()];
}

export type NewRecord = Omit<FilingRecord, "id" | "parentId"> & {
  readonly parentCode: string | null;
  readonly addresses?: readonly EmailAddress[];
};

/** Sets up records of the types that there are, parents before their children. */
export async function setUpRecords(deps: Deps, records: readonly NewRecord[]): Promise<FilingRecord[]> {
  const types = await recordTypes(deps.db);
  const made = new Map<string, FilingRecord>();
  for (const { parentCode, addresses: _, ...record } of records) {
    const parentId = parentCode === null ? null : (made.get(parentCode)?.id ?? null);
    made.set(record.code, { ...record, id: trustedId<RecordId>(deps.newId()), parentId });
  }
  const entries = records.map(({ code, addresses = [] }): RegisterRecord => {
    const record = made.get(code);
    const type = types.find(({ name }) => name.toLowerCase() === record?.kind);
    if (record === undefined || type === undefined) throw new Error(`there is no type for ${code}`);
    return {
      id: record.id,
      code,
      typeId: type.id,
      title: record.title,
      parentId: record.parentId,
      addresses,
      responsibleId: null,
      note: "",
      access: null,
      viewers: null,
      mergedInto: null,
      version: 0,
      createdAt: deps.now(),
      closedAt: record.closed ? deps.now() : null,
    };
  });
  await inTransaction(deps.db, (trx) => saveRecords(trx, entries));
  return [...made.values()];
}
