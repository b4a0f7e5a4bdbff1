import type { EmailAddress, Mailbox } from "../../core/kernel/email-address";
import { foldedWords } from "../../core/kernel/folded-words";
import { completeRecipients, type KnownRecipient } from "../../core/recipients/complete-recipients";
import type { TrayGrant } from "../../storage/access/index";
import { writtenTogetherWith } from "../../storage/conversation/index";
import type { Deps } from "../base/deps";
import { knownRecipients } from "./known-recipients";

/** Whom a message could go to: people, the best first, and those whom one category calls together. */
export type FoundRecipients = {
  readonly people: readonly KnownRecipient[];
  readonly groups: readonly { readonly name: string; readonly people: readonly Mailbox[] }[];
};

const MOST_PEOPLE = 8;
const MOST_GROUPS = 3;

/** Completes what was typed into a list of recipients, in which some stand already. */
export async function findRecipients(
  deps: Deps,
  grant: TrayGrant,
  typed: string,
  taken: readonly EmailAddress[],
): Promise<FoundRecipients> {
  const [known, together] = await Promise.all([
    knownRecipients(deps, grant),
    writtenTogetherWith(deps.db, grant.tray.id, taken),
  ]);
  const people = completeRecipients(known.index, { typed, taken, together }, MOST_PEOPLE);
  const words = foldedWords(typed).trim();
  const groups = known.groups.filter(({ name }) => words !== "" && foldedWords(name).includes(` ${words}`));
  return { people, groups: groups.slice(0, MOST_GROUPS) };
}
