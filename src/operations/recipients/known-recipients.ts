import type { EmailAddress, Mailbox } from "../../core/kernel/email-address";
import type { CategoryId, MemberId, TrayId } from "../../core/kernel/ids";
import { type Instant, MINUTE } from "../../core/kernel/instant";
import { type KnownRecipient, type RecipientIndex, recipientIndex } from "../../core/recipients/complete-recipients";
import { mailAddressesOf, type TrayGrant } from "../../storage/access/index";
import { contactsByCategory, peopleOf } from "../../storage/conversation/index";
import type { Deps } from "../base/deps";
import type { TrayMemory } from "../base/tray-memory";
import { namesIn } from "../people/get-tray";

/** Everybody whom a tray knows, its colleagues, and those whom it calls together by a category. */
export type Known = {
  readonly index: RecipientIndex;
  readonly colleagues: ReadonlyMap<MemberId, EmailAddress>;
  readonly groups: readonly { readonly id: CategoryId; readonly name: string; readonly people: readonly Mailbox[] }[];
};

type Kept = { readonly at: Instant; readonly known: Promise<Known>; isRenewed: boolean };

// Beside what else a process remembers of its trays, as long as that is there.
const remembered = new WeakMap<TrayMemory, Map<TrayId, Kept>>();

// Who wrote within it is found a little later; nobody waits while fifty thousand are counted anew.
const FRESH = MINUTE / 2;

/** Whom a tray knows: as it was a moment ago, and counted anew behind that. */
export async function knownRecipients(deps: Deps, grant: TrayGrant): Promise<Known> {
  const trays = remembered.get(deps.memory) ?? new Map<TrayId, Kept>();
  remembered.set(deps.memory, trays);
  const kept = trays.get(grant.tray.id);
  if (kept === undefined) return begin(deps, grant, trays).known;
  if (deps.now() - kept.at > FRESH && !kept.isRenewed) {
    kept.isRenewed = true;
    const fresh: Kept = { at: deps.now(), known: lookUp(deps, grant), isRenewed: false };
    fresh.known.then(
      () => trays.set(grant.tray.id, fresh),
      () => {
        kept.isRenewed = false;
      },
    );
  }
  return kept.known;
}

function begin(deps: Deps, grant: TrayGrant, trays: Map<TrayId, Kept>): Kept {
  const kept: Kept = { at: deps.now(), known: lookUp(deps, grant), isRenewed: false };
  trays.set(grant.tray.id, kept);
  // What went wrong is not remembered.
  kept.known.catch(() => trays.delete(grant.tray.id));
  return kept;
}

async function lookUp(deps: Deps, grant: TrayGrant): Promise<Known> {
  const { members, categories } = await namesIn(deps, grant);
  const [people, contacts, colleagues] = await Promise.all([
    peopleOf(deps.db, grant.tray.id),
    contactsByCategory(deps.db, grant.tray.id),
    mailAddressesOf(
      deps.db,
      members.map(({ id }) => id),
    ),
  ]);
  const ours = members.flatMap(({ id, name }): KnownRecipient[] => {
    const address = colleagues.get(id);
    return address === undefined
      ? []
      : [{ name, address, organisation: "", kind: "colleague", times: 0, lastAt: null }];
  });
  const own = new Set(grant.tray.addresses);
  const groups = categories.flatMap(({ id, name }) => {
    const of = contacts.filter((contact) => contact.categoryIds.includes(id));
    const mailboxes = of.map(({ name: called, address }) => ({ name: called, address }));
    return mailboxes.length < 2 ? [] : [{ id, name, people: mailboxes }];
  });
  return {
    index: recipientIndex([...ours, ...people.filter(({ address }) => !own.has(address))], deps.now()),
    colleagues,
    groups,
  };
}

/** The addresses of a tray and of those who work in it. */
export function oursOf({ tray }: TrayGrant, { colleagues }: Known): ReadonlySet<EmailAddress> {
  return new Set([...tray.addresses, ...colleagues.values()]);
}
