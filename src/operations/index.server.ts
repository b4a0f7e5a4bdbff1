// The only door to the operations: web, jobs, cli and demo come in here.
export type { ParsedMail, SafeHtml } from "../mail/index";
export { LETTER_PAGE } from "../mail/index";
export type {
  Invitation,
  KeptTimeOff,
  KeptWatch,
  Member,
  MemberGroup,
  Role,
  Tray,
  TrayGrant,
  TrayMember,
} from "../storage/access/index";
export type { CategoryStep, CategoryUses } from "../storage/categories/index";
export type {
  AbsenceSummary,
  CorrespondenceMessage,
  Delivery,
  Doing,
  JournalLine,
  ListedNotification,
  Notification,
  OwnDraft,
  Present,
  SharedDraft,
  ShownPart,
} from "../storage/conversation/index";
export type {
  BulkRun,
  Desk,
  FlowSegment,
  GroupCount,
  ListedRow,
  LooseEnd,
  SavedView,
  SheetRow,
} from "../storage/lists/index";
export type { HeldBy, MailSource, OutgoingRow } from "../storage/mail/index";
export { IMPORT_WAYS, type ImportWay } from "../storage/mail/index";
export type { JobAside, TrayChange } from "../storage/queue/index";
export type {
  FiledConversation,
  FiledMessage,
  FilingRecord,
  ZipExport,
  ZipExportForm,
  ZipExportOf,
} from "../storage/records/index";
export type { ArrivalPlace } from "../storage/rules/index";
export type { AfterAnswer, Answer } from "./answering/answer";
export { answerConversation } from "./answering/answer-conversation";
export {
  attachDocument,
  attachFile,
  type DocumentToAttach,
  documentsToAttach,
  forgetDraftAttachments,
} from "./answering/draft-attachments";
export * from "./answering/own-drafts";
export * from "./answering/put-aside";
export * from "./answering/recall-message";
export * from "./answering/reminders";
export { type OpeningMessage, openingMessage, startConversation } from "./answering/start-conversation";
export * from "./answering/unsubscribe";
export { editAsNew, sendToAnother } from "./answering/write-again";
export {
  type ImportOptions,
  type ImportReport,
  importInto,
  importMail,
} from "./arriving/import-mail";
export type { Kept } from "./arriving/ingest-message";
export * from "./arriving/inspect";
export * from "./arriving/inspect-proposals";
export * from "./arriving/mail-sources";
export { readDocuments, wantReading } from "./arriving/read-documents";
export { type Arrival, knowsAddress, receiveMessage } from "./arriving/receive-message";
export * from "./arriving/reparse";
export * from "./automatic-answers/edit-answers";
export * from "./automatic-answers/preview-answer";
export {
  type AccessLogPage,
  forgetAccess,
  getAccessLog as lookAtAccessLog,
  type LoggedAccess,
} from "./base/access-log";
export type { Deps } from "./base/deps";
export * from "./base/once";
export { type TrayMemory, trayMemory } from "./base/tray-memory";
export { writtenDown } from "./base/written-down";
export {
  beginWithSet,
  exportCategories,
  importCategories,
  type ReportedLine,
  tryCategoryTable,
} from "./categories/category-table";
export { type CategoriesChanged, type CategoryRefusal, categoryRight } from "./categories/change-categories";
export * from "./categories/end-category";
export * from "./categories/get-categories";
export {
  bringBackCategory,
  type CategoryPlace,
  changeCategory,
  createCategory,
  placeCategory,
  retireCategory,
} from "./categories/save-category";
export * from "./categories/undo-category-step";
export type { Done, Target } from "./changes/change-conversations";
export { DECIDED_AT_ONCE, MAX_IN_RUN, runBulk, runsUnderWay, startBulkRun, stopBulkRun } from "./deciding/bulk-run";
export { decide, decideTogether, editNote } from "./deciding/decide";
export { joinConversations, splitOff } from "./deciding/join-conversations";
export { callJunkSender, type OtherMail, otherMailOf } from "./deciding/junk-senders";
export * from "./deciding/learn-decisions";
export * from "./deciding/redo";
export * from "./deciding/rounds";
export { startRuleRun } from "./deciding/run-rule";
export { type Undone, undoBatch } from "./deciding/undo";
export * from "./deciding/undo-rule-version";
export * from "./deciding/undo-steps";
export { lapseExpired, wakeRested } from "./deciding/wake-rested";
export { buildZipExport } from "./exchange/build-zip-export";
export * from "./exchange/export-mail";
export { type ImportedRecord, importRecord } from "./exchange/import-record";
export * from "./exchange/import-run";
export * from "./exchange/zip-exports";
export * from "./later-letters/letters-to-go";
export { planLetter } from "./later-letters/plan-letter";
export { sendLaterLetters } from "./later-letters/send-later";
export * from "./lists/get-backlog";
export * from "./lists/get-follow-ups";
export * from "./lists/get-waiting";
export * from "./lists/list-conversations";
export * from "./lists/loose-ends";
export * from "./lists/search";
export * from "./lists/shelf";
export * from "./lists/sort-run";
export * from "./people/common-passwords";
export * from "./people/get-tray";
export * from "./people/invitations";
export * from "./people/member-access";
export * from "./people/notifications";
export * from "./people/own-account";
export * from "./people/provisioning";
export { type HandOver, removeAccess, restoreAccess } from "./people/remove-access";
export * from "./people/settings";
export * from "./people/sign-in";
export * from "./people/times-off";
export * from "./people/tray-members";
export * from "./people/tray-settings";
export * from "./reading/assignee-suggestions";
export * from "./reading/call-script";
export * from "./reading/contacts";
export * from "./reading/dates";
export * from "./reading/get-journal";
export type { LetterInList } from "./reading/letters-in-words";
export * from "./reading/open-conversation";
export * from "./reading/possible-parent";
export * from "./reading/presence";
export * from "./reading/read-message";
export * from "./reading/reply-defaults";
export * from "./reading/rule-history";
export * from "./reading/shared-drafts";
export * from "./reading/text-suggestions";
export { checkRecipients, type LetterInHand } from "./recipients/check-recipients";
export { type FoundRecipients, findRecipients } from "./recipients/find-recipients";
export {
  arrangedRecords,
  editArrangement,
  getArrangement as lookAtArrangement,
  type HandedTo,
  handOutArrangement,
  type OwnArrangement,
} from "./records/arrangements";
export { type DisposalPreview, disposeByItself, disposeOf, previewDisposal } from "./records/disposal";
export * from "./records/get-records";
export * from "./records/merge-records";
export * from "./records/record-documents";
export { exportRecords, importRecords, type RecordLine } from "./records/record-table";
export * from "./records/record-types";
export {
  changeRecord,
  closeRecord,
  createRecord,
  type RecordRefusal,
} from "./records/records";
export {
  bearPolicy,
  editPolicy,
  getRetention as lookAtRetention,
  holdRecord,
  keepLonger,
  type PolicyRefusal,
  type RecordRetention,
  type RetainedLine,
  type Retention,
  releaseRecord,
  removePolicy,
  retentionOf,
} from "./records/retention";
export * from "./refusals/refusal";
export * from "./rules/edit-rules";
export { type ExplainedMessage, explainMessage } from "./rules/explain-message";
export { type LearnedRule, learnRule } from "./rules/learn-rule";
export { applyPassingRules } from "./rules/passing-rules";
export * from "./rules/propose-rules";
export { detailsAskedBy } from "./rules/rule-details";
export * from "./rules/rule-files";
export { type NamedHere, namedInRules, namesForRules, rulesAsWritten } from "./rules/rule-names";
export { ruleRefusal } from "./rules/rule-rights";
export * from "./rules/rule-schemas";
export { bringInScript, type ScriptLine, scriptOfTray, tryScript } from "./rules/rule-scripts";
export { applySendingRules } from "./rules/sending-rules";
export { type RuleTrial, tryRule } from "./rules/try-rule";
export * from "./rules/try-written";
export * from "./rules/written-rules";
export type { Writer } from "./sending/letters";
export * from "./sending/send-message";
export { type TemplateToChoose, templatesToChoose } from "./templates/choose-template";
export * from "./templates/fill-template";
export * from "./templates/templates";
export * from "./upkeep/advance-demo-clock";
export * from "./upkeep/doctor";
export * from "./upkeep/empty-bins";
export * from "./upkeep/health";
export * from "./upkeep/resume-work";
export * from "./upkeep/weekly-summary";
