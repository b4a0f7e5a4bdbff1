import type { EmailAddress, Mailbox } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type RecipientWarning, recipientWarnings } from "../../core/recipients/recipient-warnings";
import { recordCodesIn } from "../../core/threading/record-codes";
import type { TrayGrant } from "../../storage/access/index";
import { conversationRow, peopleOfNewest, recordsOfPeople } from "../../storage/conversation/index";
import { recordsByCodes } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import { awayNow, namesIn } from "../people/get-tray";
import { type Known, knownRecipients, oursOf } from "./known-recipients";

/** A message that is being written, as far as it matters to whom it goes. */
export type LetterInHand = {
  readonly conversationId: ConversationId | null;
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly bcc: readonly Mailbox[];
  readonly subject: string;
  readonly text: string;
  /** The code of the record that it is filed on with its sending; empty for none. */
  readonly recordCode: string;
};

/** What is worth knowing about those to whom a message is to go. */
export async function checkRecipients(
  deps: Deps,
  grant: TrayGrant,
  letter: LetterInHand,
): Promise<readonly RecipientWarning[]> {
  const known = await knownRecipients(deps, grant);
  const ours = oursOf(grant, known);
  const [away, newest, foreignCodes] = await Promise.all([
    colleaguesAway(deps, grant, known),
    letter.conversationId === null ? [] : peopleOfNewest(deps.db, letter.conversationId),
    foreignCodesIn(deps, grant, letter),
  ]);
  const before = newest.filter(({ address }) => !ours.has(address));
  return recipientWarnings(letter, { index: known.index, ours, away, before, foreignCodes });
}

async function colleaguesAway(
  deps: Deps,
  grant: TrayGrant,
  { colleagues }: Known,
): Promise<ReadonlyMap<EmailAddress, { readonly name: string; readonly until: Instant }>> {
  const [timesOff, { members }] = await Promise.all([awayNow(deps), namesIn(deps, grant)]);
  return new Map(
    timesOff.flatMap(({ memberId, until }) => {
      const [address, member] = [colleagues.get(memberId), members.find(({ id }) => id === memberId)];
      return address === undefined || member === undefined ? [] : [[address, { name: member.name, until }] as const];
    }),
  );
}

// Codes of records that neither the conversation is on, nor anybody it goes to has to do with.
async function foreignCodesIn(deps: Deps, grant: TrayGrant, letter: LetterInHand): Promise<string[]> {
  const { subject, text, recordCode, conversationId } = letter;
  const codes = recordCodesIn(`${subject} ${text}`).filter((code) => code !== recordCode);
  const named = await recordsByCodes(deps.db, grant, codes);
  if (named.length === 0) return [];
  const row = conversationId === null ? null : await conversationRow(deps.db, grant, conversationId);
  const own = await recordsByCodes(deps.db, grant, [...(row?.recordCodes ?? []), recordCode]);
  const isNear = ({ id, parentId }: (typeof named)[number]) =>
    own.some(
      (one) =>
        one.id === id || one.id === parentId || one.parentId === id || (parentId !== null && one.parentId === parentId),
    );
  const apart = named.filter((record) => !isNear(record));
  const people = [...letter.to, ...letter.cc, ...letter.bcc].map(({ address }) => address);
  const ofPeople = await recordsOfPeople(
    deps.db,
    grant.tray.id,
    apart.map(({ id }) => id),
    people,
  );
  return apart.filter(({ id }) => !ofPeople.has(id)).map(({ code }) => code);
}
