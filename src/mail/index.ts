export * from "./aside/aside";
export { type CalendarDays, calendarDays } from "./formats/calendar-days";
export * from "./formats/conversation-pdf";
export * from "./formats/export-mail";
export * from "./formats/mail-files";
export * from "./formats/mbox";
export * from "./formats/mbox-spool";
export * from "./formats/public-holidays";
export * from "./formats/table-files";
export * from "./formats/zip";
export * from "./inbound/check-signatures";
export * from "./inbound/date-offset";
export { hasText } from "./inbound/document-kind";

export * from "./inbound/imap-mailbox";

export * from "./inbound/parse-message";
export * from "./inbound/safe-file-name";
export * from "./inbound/safe-html";
export * from "./inbound/sanitise-html";
export { LETTER_PAGE } from "./inbound/shown/dress";
export * from "./inbound/smtp-listener";
export * from "./inbound/text-of-html";
export * from "./outbound/compose-message";
export * from "./outbound/one-click";
export * from "./outbound/smtp-transport";
export * from "./outside-world/characters";
export * from "./outside-world/leaving-site";
export * from "./outside-world/outside-world";
