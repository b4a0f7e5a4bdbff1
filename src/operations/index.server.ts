// The only door to the operations: web, jobs, cli and demo come in here.
export type { ParsedMail, SafeHtml } from "../mail/index";
export type {
  Category,
  CorrespondenceMessage,
  Delivery,
  FiledConversation,
  FiledMessage,
  FilingRecord,
  FlowSegment,
  JournalLine,
  MailSource,
  Member,
  OutgoingRow,
  Role,
  SheetRow,
  Tray,
  TrayChange,
  TrayGrant,
} from "../storage/index";
export * from "./answer-conversation";
export type { Done, Target } from "./change-conversations";
export * from "./decide";
export type { Deps } from "./deps";
export * from "./doctor";
export * from "./export-mail";
export * from "./import-mail";
export * from "./import-run";
export * from "./inspect";
export { joinConversations, splitOff } from "./join-conversations";
export type { Kept } from "./keep-in-tray";
export * from "./look-at-records";
export * from "./look-into-tray";
export * from "./mail-sources";
export * from "./open-conversation";
export * from "./read-message";
export { type Arrival, knowsAddress, receiveMessage } from "./receive-message";
export * from "./refusal";
export * from "./reparse";
export * from "./resume-work";
export * from "./search";
export * from "./send-message";
export * from "./set-up";
export * from "./sign-in";
export * from "./undo";
export * from "./wake-rested";
export * from "./withdraw-message";
