import { type EmailAddress, withoutSubaddress } from "../core/kernel/email-address";
import { type Instant, SECOND } from "../core/kernel/instant";
import { allTrays, type Database, type Tray } from "../storage/index";
import type { Deps } from "./deps";

// Mail comes in bursts, and trays change once in months: each message asking twice for them doubled its cost.
const TRUSTED_FOR = 2 * SECOND;

const directories = new WeakMap<Database, { readAt: Instant; trays: Promise<Tray[]> }>();

/** Those of the addresses that are a tray's, with a subaddress or without. */
export function addressesOf(tray: Tray, addresses: readonly EmailAddress[]): EmailAddress[] {
  return addresses.filter(
    (address) => tray.addresses.includes(address) || tray.addresses.includes(withoutSubaddress(address)),
  );
}

/** The trays that these addresses belong to, as they were at most two seconds ago. */
export async function traysOfAddresses(deps: Deps, addresses: readonly EmailAddress[]): Promise<Tray[]> {
  const now = deps.now();
  let known = directories.get(deps.db);
  if (known === undefined || Math.abs(now - known.readAt) > TRUSTED_FOR) {
    known = { readAt: now, trays: allTrays(deps.db) };
    directories.set(deps.db, known);
    // What could not be read is asked for again by the next.
    known.trays.catch(() => directories.delete(deps.db));
  }
  const trays = await known.trays;
  const wanted = new Set(addresses.flatMap((address) => [address, withoutSubaddress(address)]));
  return trays.filter((tray) => tray.addresses.some((address) => wanted.has(address)));
}
