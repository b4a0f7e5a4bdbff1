import { err, ok, type Result } from "../../core/kernel/result";
import { allTrays } from "../../storage/access/index";
import {
  addMailSource,
  allMailSources,
  type MailSource,
  removeMailSource,
  saveSourcePlace,
  saveSourceState,
} from "../../storage/mail/index";
import type { Deps } from "../base/deps";
import { receiveMessage } from "./receive-message";

export type NewSource = {
  readonly tray: string;
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly userName: string;
  readonly passwordVariable: string;
  readonly mailbox: string;
};

/** Has mail fetched from a mailbox elsewhere into a tray. */
export async function addSource(
  deps: Deps,
  { tray: slug, ...source }: NewSource,
): Promise<Result<{ readonly id: string }, { kind: "no-such-tray" }>> {
  const tray = (await allTrays(deps.db)).find((one) => one.slug === slug);
  if (tray === undefined) return err({ kind: "no-such-tray" });
  const id = deps.newId();
  await addMailSource(deps.db, { id, trayId: tray.id, ...source });
  return ok({ id });
}

/** Ends fetching from a mailbox; false when there is no such source. */
export function removeSource(deps: Deps, id: string): Promise<boolean> {
  return removeMailSource(deps.db, id);
}

/** Every source, and how it is. */
export function listSources(deps: Deps): Promise<MailSource[]> {
  return allMailSources(deps.db);
}

/** Keeps a message that was fetched, then up to where: cut off between the two, it is fetched again, which changes nothing. */
export async function takeFetched(
  deps: Deps,
  source: MailSource,
  raw: Uint8Array,
  place: { readonly uidValidity: bigint; readonly lastUid: number },
): Promise<void> {
  const tray = (await allTrays(deps.db)).find((one) => one.id === source.trayId);
  const address = tray?.addresses[0];
  if (address === undefined) throw new Error(`the tray of source ${source.id} has no address`);
  await receiveMessage(deps, { raw, envelopeSender: null, recipients: [address] });
  await saveSourcePlace(deps.db, source.id, place);
}

/** Keeps how a source is. */
export function noteSource(deps: Deps, id: string, problem: string | null): Promise<void> {
  return saveSourceState(deps.db, id, problem, deps.now());
}
