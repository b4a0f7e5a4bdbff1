import type { Said } from "../texts/said";
import type { Kept } from "../texts/stored";
import type { EmailAddress } from "./kernel/email-address";
import type { ConversationId, MessageId, RunId, TrayId, ZipExportId } from "./kernel/ids";
import type { Instant } from "./kernel/instant";

/** Work for later. A job names the fact it establishes, so that running it twice does no harm. */
export type Job =
  | { readonly kind: "send-message"; readonly messageId: MessageId }
  /** Lets the rules for what is sent act, once it is out. */
  | { readonly kind: "rules-of-sent"; readonly messageId: MessageId; readonly trayId: TrayId }
  | { readonly kind: "run-import"; readonly importId: string }
  | { readonly kind: "run-bulk"; readonly runId: RunId }
  | { readonly kind: "pack-parcel"; readonly parcelId: ZipExportId }
  /** Reads files, so that they are found by their words. */
  | { readonly kind: "read-documents" }
  | { readonly kind: "wake-rested" }
  /** Deletes what has lain in a bin for longer than its term. */
  | { readonly kind: "empty-bins" }
  /** Tells of what is overdue, and sums up the day. */
  | { readonly kind: "tell-by-clock" }
  /** Takes up what a killed process left behind. */
  | { readonly kind: "resume-work" };
export type JobKind = Job["kind"];

/** Where jobs are handed in, within the caller's transaction. */
export type JobQueue<Transaction> = {
  enqueue(transaction: Transaction, job: Job, startAt?: Instant): Promise<void>;
};

/** How a message leaves: its bytes as they are, to these recipients; from nobody (an empty text) where no report is to come back. */
export type Envelope = { readonly from: EmailAddress | ""; readonly to: readonly EmailAddress[] };

/** What became of handing a message over. */
export type HandOver =
  | { readonly kind: "accepted" }
  /** Some or all recipients were refused for good. */
  | { readonly kind: "refused"; readonly reason: Kept }
  /** Worth another try. */
  | { readonly kind: "not-now"; readonly reason: Kept };

export type MailTransport = {
  /** `reportId` asks the mail systems on the way to report about this message under that name (RFC 3461); null does not. */
  handOver(envelope: Envelope, raw: Uint8Array, reportId: string | null): Promise<HandOver>;
};

/** What became of leaving a mailing list. */
export type LeavingOutcome =
  | { readonly kind: "left" }
  | { readonly kind: "refused"; readonly reason: Said }
  /** Worth another try. */
  | { readonly kind: "not-now"; readonly reason: Said };

/** How a mailing list is left by one request (RFC 8058). */
export type ListLeaver = { leave(url: string): Promise<LeavingOutcome> };

/** How mail leaves. */
export type SendingSettings = {
  /** How long a message waits before it goes, so that it can be taken back, in milliseconds. */
  readonly holdMs: number;
  /** At most so many messages a minute in all, as the server that sends them on allows. */
  readonly aMinute: number;
  /** At most so many messages a minute to one domain. */
  readonly perDomainAMinute: number;
};

/** Looks names up in the DNS, as Node's resolver does: the texts of TXT records, in pieces. */
export type KeyLookup = (name: string, type: string) => Promise<string[][]>;

/** What the office believes about senders. */
export type TrustSettings = {
  /** Names of servers whose Authentication-Results (RFC 8601) are believed, in lower case. */
  readonly authservIds: readonly string[];
  /** Where keys of signatures are looked up; null where that is not to be done. */
  readonly keys: KeyLookup | null;
};

/** What changed, for the screens that show it; `conversationId` null for anything in the tray. */
export type Change = {
  readonly trayId: TrayId;
  readonly conversationId: ConversationId | null;
  /** Given when nothing else changed than who has it open. */
  readonly only?: "presence";
};
