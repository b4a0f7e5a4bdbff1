import { type EmailAddress, withoutSubaddress } from "../core/kernel/email-address";
import { type Instant, SECOND } from "../core/kernel/instant";
import {
  allColleagues,
  allJunkSenders,
  allRules,
  allTrays,
  allWatches,
  type Colleague,
  type Database,
  type KeptRule,
  type KeptTimeOff,
  type KeptWatch,
  type Tray,
  timesOffNow,
} from "../storage/index";
import type { Deps } from "./deps";

// Mail comes in bursts, and trays change once in months: each message asking twice for them doubled its cost.
const TRUSTED_FOR = 2 * SECOND;

type Directory = {
  readonly readAt: Instant;
  readonly trays: Promise<Tray[]>;
  readonly colleagues: Promise<Colleague[]>;
  readonly junkSenders: ReturnType<typeof allJunkSenders>;
  readonly watches: Promise<KeptWatch[]>;
  readonly timesOff: Promise<KeptTimeOff[]>;
  readonly rules: Promise<KeptRule[]>;
};

const directories = new WeakMap<Database, Directory>();

function directoryOf(deps: Deps): Directory {
  const now = deps.now();
  const known = directories.get(deps.db);
  if (known !== undefined && Math.abs(now - known.readAt) <= TRUSTED_FOR) return known;
  const read = {
    readAt: now,
    trays: allTrays(deps.db),
    colleagues: allColleagues(deps.db),
    junkSenders: allJunkSenders(deps.db),
    watches: allWatches(deps.db),
    timesOff: timesOffNow(deps.db, now),
    rules: allRules(deps.db),
  };
  directories.set(deps.db, read);
  // What could not be read is asked for again by the next.
  for (const part of [read.trays, read.colleagues, read.junkSenders, read.watches, read.timesOff, read.rules])
    part.catch(() => directories.delete(deps.db));
  return read;
}

/** Those who look into the trays, as they were at most two seconds ago. Not for asking within a transaction: all connections may be in one. */
export function colleaguesNow(deps: Deps): Promise<Colleague[]> {
  return directoryOf(deps).colleagues;
}

/** Whether a tray's mail from an address goes straight to Junk, as it was at most two seconds ago. */
export async function isJunkSender(deps: Deps, trayId: Tray["id"], address: EmailAddress): Promise<boolean> {
  const senders = await directoryOf(deps).junkSenders;
  return senders.some((sender) => sender.trayId === trayId && sender.address === address);
}

/** What is watched in all trays, as it was at most two seconds ago. */
export function watchesLately(deps: Deps): Promise<KeptWatch[]> {
  return directoryOf(deps).watches;
}

/** Who is away, as it was at most two seconds ago. */
export function timesOffLately(deps: Deps): Promise<KeptTimeOff[]> {
  return directoryOf(deps).timesOff;
}

/** The rules of a tray in their order, as they were at most two seconds ago. */
export async function rulesLately(deps: Deps, trayId: Tray["id"]): Promise<KeptRule[]> {
  return (await directoryOf(deps).rules).filter((rule) => rule.trayId === trayId);
}

/** Those of the addresses that are a tray's, with a subaddress or without. */
export function addressesOf(tray: Tray, addresses: readonly EmailAddress[]): EmailAddress[] {
  return addresses.filter(
    (address) => tray.addresses.includes(address) || tray.addresses.includes(withoutSubaddress(address)),
  );
}

/** The trays that these addresses belong to, as they were at most two seconds ago. */
export async function traysOfAddresses(deps: Deps, addresses: readonly EmailAddress[]): Promise<Tray[]> {
  const trays = await directoryOf(deps).trays;
  const wanted = new Set(addresses.flatMap((address) => [address, withoutSubaddress(address)]));
  return trays.filter((tray) => tray.addresses.some((address) => wanted.has(address)));
}
