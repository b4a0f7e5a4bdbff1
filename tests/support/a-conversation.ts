import type { Effect } from "~/core/journal/entry";
import type { EmailAddress } from "~/core/kernel/email-address";
import { type EntryId, type MemberId, type MessageId, trustedId } from "~/core/kernel/ids";
import { HOUR, type Instant, instant } from "~/core/kernel/instant";
import type { MessageKind } from "~/core/message/mail-message";
import type { ConversationFacts, MessageFact } from "~/core/standing/derive-standing";

export const INES = trustedId<MemberId>("ines");
export const TOBIAS = trustedId<MemberId>("tobias");
export const VANE = "vane@vanehouse.example" as EmailAddress;
export const THRANE = "casework@calder.example" as EmailAddress;

/** Something that happened, an hour after what happened before it. */
export type Happening =
  | { readonly kind: "message"; readonly fact: Omit<MessageFact, "id" | "version" | "at" | "arrivedAt"> }
  | { readonly kind: "entry"; readonly by: MemberId | null; readonly effect: Effect };

const fromOutside = (from: EmailAddress, kind: MessageKind, failedRecipients: EmailAddress[] = []): Happening => ({
  kind: "message",
  fact: { direction: "in", kind, from, fromName: "", authorId: null, failedRecipients },
});

export const theyWrote = (from: EmailAddress = VANE): Happening => fromOutside(from, "person");
export const machineWrote = (): Happening => fromOutside(VANE, "automatic");
export const listWrote = (): Happening => fromOutside(VANE, "list");
export const bounced = (recipient: EmailAddress = VANE): Happening =>
  fromOutside("mailer-daemon@x.example" as EmailAddress, "bounce", [recipient]);
export const weWrote = (by: MemberId = INES): Happening => ({
  kind: "message",
  fact: {
    direction: "out",
    kind: "person",
    from: "office@ottermoor.example" as EmailAddress,
    fromName: "Ines",
    authorId: by,
    failedRecipients: [],
  },
});
export const did = (effect: Effect, by: MemberId | null = INES): Happening => ({ kind: "entry", by, effect });

/** The hour of the nth happening, counted from one. */
export const hour = (n: number): Instant => instant(n * HOUR);

/** The facts of a conversation in which these things happened, one an hour, in this order. */
export function aConversation(...happenings: readonly Happening[]): ConversationFacts {
  const messages: MessageFact[] = [];
  const entries: ConversationFacts["entries"][number][] = [];
  happenings.forEach((happening, at) => {
    const version = at + 1;
    if (happening.kind === "message") {
      const when = { at: hour(version), arrivedAt: hour(version) };
      messages.push({ id: trustedId<MessageId>(`m${version}`), version, ...when, ...happening.fact });
    } else {
      const { by, effect } = happening;
      entries.push({ id: trustedId<EntryId>(`e${version}`), version, at: hour(version), by, effect });
    }
  });
  return { messages, entries, replacedCategories: [], replacedOwners: [] };
}
