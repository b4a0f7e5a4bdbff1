import type { Awaited } from "../../core/journal/awaited";
import type { Effect } from "../../core/journal/entry";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type BatchId, type ConversationId, type TrayId, trustedId } from "../../core/kernel/ids";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { type Expectation, expectationsOf, isOpen } from "../../core/turns/expectations";
import type { Database, Transaction } from "../../storage/base/index";
import { contactsWith } from "../../storage/conversation/index";
import { askedOf, factsOf, lockConversations, sendersIn } from "../../storage/facts/index";
import type { Within } from "../base/deps";
import { carryOut } from "../changes/change-conversations";

/** The other addresses of people, as the tray's contacts have them. */
export async function aliasesOf(
  db: Database,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
): Promise<Awaited["aliases"]> {
  if (addresses.length === 0) return [];
  const contacts = await contactsWith(db, trayId, addresses);
  return contacts.flatMap(({ addresses: theirs }) => {
    const known = theirs.filter((address) => addresses.includes(address));
    const others = theirs.filter((address) => !addresses.includes(address));
    return known.flatMap((of) => others.map((address) => ({ address, of })));
  });
}

/** The same for whoever wrote in some conversations. */
export async function aliasesIn(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
): Promise<Awaited["aliases"]> {
  return aliasesOf(db, trayId, await sendersIn(db, ids));
}

/** The effects, those that await an answer with the other addresses of whom they await. */
export function withAliases(effects: readonly Effect[], aliases: Awaited["aliases"]): Effect[] {
  return effects.map((effect) => {
    if (effect.kind !== "expected") return effect;
    const own = aliases.filter(({ of }) => effect.from.includes(of));
    return own.length === 0 ? effect : { ...effect, aliases: own };
  });
}

const LOOKED_AT = 100;

/** Lets a contact's other addresses count where an answer by one of hers is awaited, also what came from them already. */
export async function alsoAwait(
  trx: Transaction,
  deps: Within,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
): Promise<void> {
  const ids = await askedOf(trx, trayId, addresses, LOOKED_AT);
  if (ids.length === 0) return;
  const held = await lockConversations(trx, trayId, ids);
  const facts = await factsOf(trx, ids);
  const changes = held.map((conversation) => {
    const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
    const open = expectationsOf(known.messages, known.entries).filter(isOpen);
    return { conversation, known, effects: open.flatMap((one) => foundFor(one, addresses)) };
  });
  await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), changes);
}

function foundFor({ id, from, aliases }: Expectation, addresses: readonly EmailAddress[]): Effect[] {
  const of = from.find((address) => addresses.includes(address));
  if (of === undefined) return [];
  const others = addresses.filter(
    (address) => !from.includes(address) && !aliases.some((alias) => alias.address === address),
  );
  const found = others.map((address) => ({ address, of }));
  return found.length === 0 ? [] : [{ kind: "also-awaited", expectationId: id, aliases: found }];
}
