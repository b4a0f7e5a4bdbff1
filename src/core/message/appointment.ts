import type { Mailbox } from "../kernel/email-address";
import type { Instant } from "../kernel/instant";

/** When something begins or ends: a moment with the zone it was written in, or a day without one. */
export type AppointmentTime =
  | { readonly kind: "moment"; readonly at: Instant; readonly zone: string | null }
  /** A day (`YYYY-MM-DD`), or a time of day without a zone (`YYYY-MM-DDTHH:MM`), which is everybody's own (RFC 5545 3.3.5). */
  | { readonly kind: "local"; readonly written: string };

/** What somebody said to an invitation (RFC 5545 3.2.12). */
export type Participation = "needs-action" | "accepted" | "declined" | "tentative" | "delegated";

export type Attendee = Mailbox & { readonly participation: Participation };

/** An event of a calendar part (RFC 5545, RFC 5546), as a message carries it. */
export type Appointment = {
  /** METHOD in upper case: REQUEST, REPLY, CANCEL and others; null when the part has none. */
  readonly method: string | null;
  readonly summary: string;
  readonly description: string;
  readonly begins: AppointmentTime | null;
  readonly ends: AppointmentTime | null;
  readonly place: string;
  readonly organiser: Mailbox | null;
  readonly attendees: readonly Attendee[];
  /** How many are invited in all; `attendees` names the first. */
  readonly attendeeCount: number;
  readonly repeats: boolean;
  readonly isCancelled: boolean;
};
