import type { Brand } from "./brand";
import { err, ok, type Result } from "./result";

export type TrayId = Brand<string, "TrayId">;
export type MemberId = Brand<string, "MemberId">;
export type ConversationId = Brand<string, "ConversationId">;
export type MessageId = Brand<string, "MessageId">;
export type CategoryId = Brand<string, "CategoryId">;
export type RecordId = Brand<string, "RecordId">;
export type EntryId = Brand<string, "EntryId">;
export type BatchId = Brand<string, "BatchId">;
export type ExpectationId = Brand<string, "ExpectationId">;
export type FollowUpId = Brand<string, "FollowUpId">;
export type RunId = Brand<string, "RunId">;
export type PinId = Brand<string, "PlaceId">;
export type CategoryStepId = Brand<string, "CategoryStepId">;
export type DraftId = Brand<string, "DraftId">;
export type GroupId = Brand<string, "GroupId">;
export type TimeOffId = Brand<string, "TimeOffId">;
export type InvitationId = Brand<string, "InvitationId">;
export type NotificationId = Brand<string, "NotificationId">;
export type WatchId = Brand<string, "WatchId">;
export type RuleId = Brand<string, "RuleId">;
export type RuleProposalId = Brand<string, "RuleProposalId">;
export type RoundId = Brand<string, "RoundId">;
export type AutomaticAnswerId = Brand<string, "AutomaticAnswerId">;
export type TemplateId = Brand<string, "TemplateId">;
export type ContactId = Brand<string, "ContactId">;
export type ReminderId = Brand<string, "ReminderId">;
export type RecordTypeId = Brand<string, "RecordTypeId">;
export type PolicyId = Brand<string, "PolicyId">;
export type DraftAttachmentId = Brand<string, "EnclosureId">;
export type ZipExportId = Brand<string, "ParcelId">;

type AnyId =
  | TrayId
  | MemberId
  | ConversationId
  | MessageId
  | CategoryId
  | RecordId
  | RecordTypeId
  | PolicyId
  | DraftAttachmentId
  | ZipExportId
  | EntryId
  | BatchId
  | ExpectationId
  | FollowUpId
  | RunId
  | PinId
  | CategoryStepId
  | DraftId
  | GroupId
  | TimeOffId
  | InvitationId
  | NotificationId
  | WatchId
  | RuleId
  | RuleProposalId
  | RoundId
  | AutomaticAnswerId
  | TemplateId
  | ContactId
  | ReminderId;

/** A lower-case UUID in its usual form (RFC 9562 4). */
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** An id from outside text (a URL, a form, a job's payload); refuses everything that is not a lower-case UUID (RFC 9562). */
export function readId<Id extends AnyId>(text: string): Result<Id, "malformed-id"> {
  return UUID.test(text) ? ok(text as Id) : err("malformed-id");
}

/** An id that the store or the id maker vouches for. */
export function trustedId<Id extends AnyId>(text: string): Id {
  return text as Id;
}
