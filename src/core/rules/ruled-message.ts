import type { EmailAddress } from "../kernel/email-address";
import type { CategoryId, ContactId, MemberId, RecordId, TemplateId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { Urgency } from "../kernel/urgency";
import type { Attachment, Header, MessageKind } from "../message/mail-message";
import type { StandingKind } from "../standing/standing";

/** What is known of somebody who writes or is written to. */
export type Correspondent = {
  readonly contactId: ContactId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly organisation: string;
  readonly isColleague: boolean;
  /** Whether there was mail with this address before. */
  readonly isKnown: boolean;
};

/** When a message arrived, as the calendar of the office has it. */
type Arrived = {
  readonly at: Instant;
  /** IANA. */
  readonly zone: string;
  readonly isOpen: boolean;
};

/** The conversation that a message is in. */
export type RuledConversation = {
  readonly standing: StandingKind;
  readonly ownerId: MemberId | null;
  readonly isOwnerAway: boolean;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly urgency: Urgency;
  /** Working hours since it began, and since it stands where it does. */
  readonly age: number;
  readonly standingFor: number;
  /** Working hours until the earliest of what is due in it, 0 for what is over; null where nothing is. */
  readonly dueIn: number | null;
};

/** A message as far as rules go. */
export type RuledMessage = {
  readonly from: EmailAddress | null;
  readonly to: readonly EmailAddress[];
  readonly cc: readonly EmailAddress[];
  /** The addresses of the tray. */
  readonly ours: readonly EmailAddress[];
  /** RFC 5321: null where it came without one. */
  readonly envelope: { readonly from: string | null; readonly to: readonly string[] };
  readonly subject: string;
  readonly ownText: string;
  /** What `ownText` leaves out. */
  readonly restText: string;
  /** The texts of its other parts, as far as they are at hand; made when they are asked for. */
  readonly otherTexts: () => readonly string[];
  readonly kind: MessageKind;
  /** The id within List-Id (RFC 2919), in lower case; null when it came through no list. */
  readonly list: string | null;
  readonly isFirst: boolean;
  readonly attachments: readonly Pick<Attachment, "fileName" | "contentType" | "size">[];
  readonly size: number;
  readonly headers: readonly Header[];
  /** The addresses in the fields that have some, by the names of the fields. */
  readonly addressFields: ReadonlyMap<string, readonly string[]>;
  readonly isVerified: boolean;
  readonly arrived: Arrived;
  /** The records whose codes stand in it. */
  readonly references: readonly RecordId[];
  /** What one of ours began with; null for nothing, and for what came. */
  readonly templateId: TemplateId | null;
  readonly correspondents: ReadonlyMap<EmailAddress, Correspondent>;
  /** Null where it is in none yet, or in none that is known. */
  readonly conversation: RuledConversation | null;
};
