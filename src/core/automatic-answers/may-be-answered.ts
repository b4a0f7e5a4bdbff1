import { type EmailAddress, readEmailAddress, withoutSubaddress } from "../kernel/email-address";
import type { MessageKind } from "../message/mail-message";

/** A message as far as automatic answering looks at it. */
export type AnswerableMessage = {
  readonly kind: MessageKind;
  /** RFC 5321 MAIL FROM, or Return-Path: an empty text for `<>`, null where nothing says. */
  readonly returnPath: string | null;
  /** Everybody to whom it says it is: To, Cc, and their Resent- fields. */
  readonly recipients: readonly EmailAddress[];
  /** Whether it answers a message that the tray sent by itself. */
  readonly answersAutomatic: boolean;
};

/** Why a message is not answered automatically, whatever it says. */
export const UNANSWERABLE = [
  "machine",
  "no-return-path",
  "robot",
  "ourselves",
  "not-to-us",
  "answers-automatic",
] as const;
export type Unanswerable = (typeof UNANSWERABLE)[number];

/**
 * To whom an automatic answer to a message goes, by RFC 3834 2 and 4: to its return path, and only where a person wrote to
 * one of the tray's addresses by name. `ours` are all addresses of the installation, `trayAddresses` those of the tray.
 */
export function answerRecipient(
  { kind, returnPath, recipients, answersAutomatic }: AnswerableMessage,
  ours: readonly EmailAddress[],
  trayAddresses: readonly EmailAddress[],
): { readonly to: EmailAddress } | { readonly not: Unanswerable } {
  if (kind !== "person") return { not: "machine" };
  const to = returnPath === null ? null : readEmailAddress(returnPath);
  if (to === null) return { not: "no-return-path" };
  if (ROBOT.test(to)) return { not: "robot" };
  if (ours.includes(to) || ours.includes(withoutSubaddress(to))) return { not: "ourselves" };
  const isToUs = recipients.some(
    (address) => trayAddresses.includes(address) || trayAddresses.includes(withoutSubaddress(address)),
  );
  if (!isToUs) return { not: "not-to-us" };
  return answersAutomatic ? { not: "answers-automatic" } : { to };
}

// RFC 3834 2 and RFC 5230 4.6, with the names that programs of today write from.
const ROBOT =
  /^(?:owner-[^@]*|[^@]*-(?:owner|request|admin|bounces?|errors?)|mailer-daemon|postmaster|listserv|majordomo|daemon|nobody|(?:bounces?|errors?|returns?)(?:[-+.=][^@]*)?|[^@]*(?:no|not|do-not|donot)[-_.]?repl(?:y|ies)[^@]*)@/i;
