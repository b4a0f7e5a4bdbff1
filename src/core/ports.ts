import type { EmailAddress } from "./kernel/email-address";
import type { ConversationId, MessageId, TrayId } from "./kernel/ids";
import type { Instant } from "./kernel/instant";

/** Work for later. A job names the fact it establishes, so that running it twice does no harm. */
export type Job = { readonly kind: "send-message"; readonly messageId: MessageId } | { readonly kind: "wake-rested" };
export type JobKind = Job["kind"];

/** Where jobs are handed in, within the caller's transaction. */
export type JobQueue<Transaction> = {
  enqueue(transaction: Transaction, job: Job, startAt?: Instant): Promise<void>;
};

/** How a message leaves: its bytes as they are, to these recipients. */
export type Envelope = { readonly from: EmailAddress; readonly to: readonly EmailAddress[] };

/** What became of handing a message over. */
export type HandOver =
  | { readonly kind: "accepted" }
  /** Some or all recipients were refused for good. */
  | { readonly kind: "refused"; readonly reason: string }
  /** Worth another try. */
  | { readonly kind: "not-now"; readonly reason: string };

export type MailTransport = { handOver(envelope: Envelope, raw: Uint8Array): Promise<HandOver> };

/** Looks names up in the DNS, as Node's resolver does: the texts of TXT records, in pieces. */
export type KeyLookup = (name: string, type: string) => Promise<string[][]>;

/** What the office believes about senders. */
export type TrustSettings = {
  /** Names of servers whose Authentication-Results (RFC 8601) are believed, in lower case. */
  readonly authservIds: readonly string[];
  /** Where keys of signatures are looked up; null where that is not to be done. */
  readonly keys: KeyLookup | null;
};

/** What changed, for the screens that show it. */
export type Change = { readonly trayId: TrayId; readonly conversationId: ConversationId };
