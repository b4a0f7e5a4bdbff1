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
export { type AccessLogPage, forgetAccess, type LoggedAccess, lookAtAccessLog } from "./access-log";
export { type AfterAnswer, type Answer, answerConversation } from "./answer-conversation";
export {
  arrangedRecords,
  type HandedTo,
  handOutArrangement,
  keepArrangement,
  lookAtArrangement,
  type OwnArrangement,
} from "./arrangements";
export { DECIDED_AT_ONCE, MAX_IN_RUN, runBulk, runsUnderWay, startBulkRun, stopBulkRun } from "./bulk-run";
export * from "./call-note";
export {
  beginWithSet,
  exportCategories,
  importCategories,
  type ReportedLine,
  tryCategoryTable,
} from "./category-table";
export { type CategoriesChanged, type CategoryRefusal, categoryRight } from "./change-categories";
export type { Done, Target } from "./change-conversations";
export * from "./common-passwords";
export * from "./contacts";
export * from "./could-take";
export * from "./dates";
export { decide, decideTogether, editNote } from "./decide";
export type { Deps } from "./deps";
export { type DisposalPreview, disposeByItself, disposeOf, previewDisposal } from "./disposal";
export * from "./doctor";
export * from "./empty-bins";
export { type DocumentToEnclose, documentsToEnclose, enclose, encloseDocument, forgetEnclosures } from "./enclosures";
export * from "./end-category";
export * from "./export-mail";
export * from "./health";
export {
  type ImportOptions,
  type ImportReport,
  importInto,
  importMail,
} from "./import-mail";
export * from "./import-run";
export * from "./inspect";
export * from "./inspect-proposals";
export * from "./invitations";
export { joinConversations, splitOff } from "./join-conversations";
export { callJunkSender, type OtherMail, otherMailOf } from "./junk-senders";
export type { Kept } from "./keep-in-tray";
export * from "./learn-decisions";
export * from "./leave-list";
export * from "./let-time-pass";
export type { Writer } from "./letters";
export * from "./list-conversations";
export * from "./look-at-backlog";
export * from "./look-at-categories";
export * from "./look-at-follow-ups";
export * from "./look-at-journal";
export * from "./look-at-records";
export * from "./look-at-waiting";
export * from "./look-into-tray";
export * from "./loose-ends";
export * from "./mail-sources";
export * from "./may-answer";
export * from "./member-access";
export * from "./merge-records";
export * from "./notifications";
export * from "./once";
export * from "./open-conversation";
export * from "./own-account";
export { packParcel } from "./pack-parcel";
export * from "./parcels";
export * from "./presence";
export * from "./put-aside";
export { readDocuments, wantReading } from "./read-documents";
export * from "./read-message";
export { type Arrival, knowsAddress, receiveMessage } from "./receive-message";
export * from "./record-documents";
export { exportRecords, importRecords, type RecordLine } from "./record-table";
export * from "./record-types";
export {
  changeRecord,
  closeRecord,
  createRecord,
  type RecordRefusal,
} from "./records";
export * from "./redo";
export * from "./refusal";
export * from "./reminders";
export * from "./reparse";
export { type Restored, restoreRecord } from "./restore-record";
export * from "./resume-work";
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
} from "./retention";
export * from "./rules";
export {
  bringBackCategory,
  type CategoryPlace,
  changeCategory,
  createCategory,
  placeCategory,
  retireCategory,
} from "./save-category";
export * from "./search";
export * from "./send-message";
export * from "./sending-habits";
export * from "./set-up";
export * from "./settings";
export * from "./shared-drafts";
export * from "./shelf";
export { type HandOver, letInAgain, shutOut } from "./shut-out";
export * from "./sign-in";
export * from "./sort-run";
export * from "./tell-weeks";
export * from "./times-off";
export * from "./tray-members";
export { type TrayMemory, trayMemory } from "./tray-memory";
export * from "./tray-settings";
export { type Undone, undoBatch } from "./undo";
export * from "./undo-category-step";
export * from "./undo-steps";
export * from "./wake-rested";
export * from "./what-it-says";
export * from "./withdraw-message";
export { type FirstLetter, firstLetter, writeFirst } from "./write-first";
