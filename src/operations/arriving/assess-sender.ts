import { type SenderTrust, senderTrust } from "../../core/message/sender-trust";
import type { Tray } from "../../storage/access/index";
import type { Database } from "../../storage/base/index";
import { addressesOfName } from "../../storage/facts/index";
import type { Within } from "../base/deps";
import type { Incoming } from "./to-new-message";

/** Who seems to have sent a message to a tray. */
export async function assessSender(db: Database, deps: Within, tray: Tray, incoming: Incoming): Promise<SenderTrust> {
  const { from, authenticationResults } = incoming.message;
  const name = from?.name ?? "";
  const evidence = {
    from,
    authenticationResults,
    trustedAuthservIds: deps.trust.authservIds,
    signatures: incoming.signatures,
    ours: tray.addresses,
  };
  // Without a name there is nobody to be taken for: most machines write so.
  if (name === "") return senderTrust({ ...evidence, colleagues: [], namesakes: [] });
  const colleagues = incoming.colleagues.filter(({ trayId }) => trayId === tray.id).map((colleague) => colleague.name);
  // What comes from a file is the past: nobody acts on it in haste, and asking would cost as much as storing.
  const namesakes = incoming.imported ? [] : await addressesOfName(db, tray.id, name);
  return senderTrust({ ...evidence, colleagues, namesakes });
}
