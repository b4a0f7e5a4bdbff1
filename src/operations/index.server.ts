// The only door to the operations: web, jobs, cli and demo come in here.
export type { ParsedMail, SafeHtml } from "../mail/index";
export { LETTER_PAGE } from "../mail/index";
export type {
  BulkRun,
  CategoryStep,
  CategoryUses,
  CorrespondenceMessage,
  Delivery,
  Desk,
  Doing,
  DraftContent,
  FiledConversation,
  FiledMessage,
  FilingRecord,
  FlowSegment,
  GroupCount,
  Invitation,
  JobAside,
  JournalLine,
  KeptTimeOff,
  KeptWatch,
  ListedNotification,
  ListedRow,
  LooseEnd,
  MailSource,
  Meanwhile,
  Member,
  MemberGroup,
  Notification,
  OutgoingRow,
  Parcel,
  ParcelForm,
  ParcelOf,
  Present,
  Role,
  SavedView,
  SharedDraft,
  SheetRow,
  ShownPart,
  Tray,
  TrayChange,
  TrayGrant,
  TrayMember,
} from "../storage/index";
export { IMPORT_WAYS, type ImportWay } from "../storage/index";
export { type AccessLogPage, forgetAccess, type LoggedAccess, lookAtAccessLog } from "./base/access-log";
export { type AfterAnswer, type Answer, answerConversation } from "./answering/answer-conversation";
export {
  arrangedRecords,
  type HandedTo,
  handOutArrangement,
  keepArrangement,
  lookAtArrangement,
  type OwnArrangement,
} from "./records/arrangements";
export { DECIDED_AT_ONCE, MAX_IN_RUN, runBulk, runsUnderWay, startBulkRun, stopBulkRun } from "./deciding/bulk-run";
export * from "./reading/call-note";
export {
  beginWithSet,
  exportCategories,
  importCategories,
  type ReportedLine,
  tryCategoryTable,
} from "./categories/category-table";
export { type CategoriesChanged, type CategoryRefusal, categoryRight } from "./categories/change-categories";
export type { Done, Target } from "./changes/change-conversations";
export * from "./people/common-passwords";
export * from "./reading/contacts";
export * from "./reading/could-take";
export * from "./reading/dates";
export { decide, decideTogether, editNote } from "./deciding/decide";
export type { Deps } from "./base/deps";
export { type DisposalPreview, disposeByItself, disposeOf, previewDisposal } from "./records/disposal";
export * from "./upkeep/doctor";
export * from "./upkeep/empty-bins";
export { type DocumentToEnclose, documentsToEnclose, enclose, encloseDocument, forgetEnclosures } from "./answering/enclosures";
export * from "./categories/end-category";
export * from "./exchange/export-mail";
export * from "./upkeep/health";
export {
  type ImportOptions,
  type ImportReport,
  importInto,
  importMail,
} from "./arriving/import-mail";
export * from "./exchange/import-run";
export * from "./arriving/inspect";
export * from "./arriving/inspect-proposals";
export * from "./people/invitations";
export { joinConversations, splitOff } from "./deciding/join-conversations";
export { callJunkSender, type OtherMail, otherMailOf } from "./deciding/junk-senders";
export type { Kept } from "./arriving/keep-in-tray";
export * from "./deciding/learn-decisions";
export * from "./answering/leave-list";
export * from "./upkeep/let-time-pass";
export type { Writer } from "./answering/letters";
export * from "./lists/list-conversations";
export * from "./lists/look-at-backlog";
export * from "./categories/look-at-categories";
export * from "./lists/look-at-follow-ups";
export * from "./reading/look-at-journal";
export * from "./records/look-at-records";
export * from "./lists/look-at-waiting";
export * from "./people/look-into-tray";
export * from "./lists/loose-ends";
export * from "./arriving/mail-sources";
export * from "./reading/may-answer";
export * from "./people/member-access";
export * from "./records/merge-records";
export * from "./people/notifications";
export * from "./base/once";
export * from "./reading/open-conversation";
export * from "./people/own-account";
export { packParcel } from "./exchange/pack-parcel";
export * from "./exchange/parcels";
export * from "./reading/presence";
export * from "./answering/put-aside";
export { readDocuments, wantReading } from "./arriving/read-documents";
export * from "./reading/read-message";
export { type Arrival, knowsAddress, receiveMessage } from "./arriving/receive-message";
export * from "./records/record-documents";
export { exportRecords, importRecords, type RecordLine } from "./records/record-table";
export * from "./records/record-types";
export {
  changeRecord,
  closeRecord,
  createRecord,
  type RecordRefusal,
} from "./records/records";
export * from "./deciding/redo";
export * from "./base/refusal";
export * from "./answering/reminders";
export * from "./arriving/reparse";
export { type Restored, restoreRecord } from "./exchange/restore-record";
export * from "./upkeep/resume-work";
export {
  bearPolicy,
  holdRecord,
  keepLonger,
  keepPolicy,
  lookAtRetention,
  type PolicyRefusal,
  type RecordRetention,
  type RetainedLine,
  type Retention,
  releaseRecord,
  removePolicy,
  retentionOf,
} from "./records/retention";
export * from "./arriving/rules";
export {
  bringBackCategory,
  type CategoryPlace,
  changeCategory,
  createCategory,
  placeCategory,
  retireCategory,
} from "./categories/save-category";
export * from "./lists/search";
export * from "./answering/send-message";
export * from "./reading/sending-habits";
export * from "./people/set-up";
export * from "./people/settings";
export * from "./reading/shared-drafts";
export * from "./lists/shelf";
export { type HandOver, letInAgain, shutOut } from "./people/shut-out";
export * from "./people/sign-in";
export * from "./lists/sort-run";
export * from "./upkeep/tell-weeks";
export * from "./people/times-off";
export * from "./people/tray-members";
export { type TrayMemory, trayMemory } from "./base/tray-memory";
export * from "./people/tray-settings";
export { type Undone, undoBatch } from "./deciding/undo";
export * from "./categories/undo-category-step";
export * from "./deciding/undo-steps";
export * from "./deciding/wake-rested";
export * from "./reading/what-it-says";
export * from "./answering/withdraw-message";
export { type FirstLetter, firstLetter, writeFirst } from "./answering/write-first";
