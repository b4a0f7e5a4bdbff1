import type { EmailAddress } from "../kernel/email-address";
import type { MemberId } from "../kernel/ids";

/** Whom we await. Nobody named means anybody outside. */
export type Awaited = {
  readonly from: readonly EmailAddress[];
  /** Whether any of them answers for all, or each of them has to. */
  readonly need: "any" | "each";
  /** A domain whose people answer for whoever was asked there; null where only those who are named do. */
  readonly organisation: string | null;
  /** A colleague from whom it is awaited inside; null for somebody outside. */
  readonly colleagueId: MemberId | null;
  /** Other addresses of those who are named, as they were known when it was made or since. */
  readonly aliases: readonly { readonly address: EmailAddress; readonly of: EmailAddress }[];
};
