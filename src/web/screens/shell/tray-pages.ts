import type { shellTexts } from "../../../texts/en/shell";
import type { PlainKey } from "../../../texts/say";

type ShellKey = PlainKey<typeof shellTexts>;

/** A page of a tray that is no list of conversations. */
export type TrayPage = {
  /** Below the tray's own. */
  readonly path: string;
  readonly name: ShellKey;
  /** What it is for, in a line. */
  readonly about: ShellKey;
  /** What stands there and what people may call it, by which it is found; with commas between. */
  readonly also: ShellKey;
  readonly forLeads?: true;
};

/** What the day's work needs beside the standings. */
export const DAY_PAGES: readonly TrayPage[] = [
  {
    path: "sort-run/to-sort",
    name: "shell.pageSortRunToSort",
    about: "shell.pageSortRunToSortAbout",
    also: "shell.pageSortRunToSortAlso",
  },
  { path: "records", name: "shell.pageRecords", about: "shell.pageRecordsAbout", also: "shell.pageRecordsAlso" },
  {
    path: "arrangement",
    name: "shell.pageArrangement",
    about: "shell.pageArrangementAbout",
    also: "shell.pageArrangementAlso",
  },
  {
    path: "follow-ups",
    name: "shell.pageFollowUps",
    about: "shell.pageFollowUpsAbout",
    also: "shell.pageFollowUpsAlso",
  },
  { path: "drafts", name: "shell.pageDrafts", about: "shell.pageDraftsAbout", also: "shell.pageDraftsAlso" },
  {
    path: "going-later",
    name: "shell.pageGoingLater",
    about: "shell.pageGoingLaterAbout",
    also: "shell.pageGoingLaterAlso",
  },
  { path: "contacts", name: "shell.pageContacts", about: "shell.pageContactsAbout", also: "shell.pageContactsAlso" },
  { path: "overview", name: "shell.pageOverview", about: "shell.pageOverviewAbout", also: "shell.pageOverviewAlso" },
  { path: "matrix", name: "shell.pageMatrix", about: "shell.pageMatrixAbout", also: "shell.pageMatrixAlso" },
  { path: "horizon", name: "shell.pageHorizon", about: "shell.pageHorizonAbout", also: "shell.pageHorizonAlso" },
  { path: "outgoing", name: "shell.pageOutgoing", about: "shell.pageOutgoingAbout", also: "shell.pageOutgoingAlso" },
  { path: "backlog", name: "shell.pageBacklog", about: "shell.pageBacklogAbout", also: "shell.pageBacklogAlso" },
  { path: "held", name: "shell.pageHeld", about: "shell.pageHeldAbout", also: "shell.pageHeldAlso" },
  { path: "bin", name: "shell.pageBin", about: "shell.pageBinAbout", also: "shell.pageBinAlso" },
  { path: "junk", name: "shell.pageJunk", about: "shell.pageJunkAbout", also: "shell.pageJunkAlso" },
];

/** What is the same for everybody in a tray. */
export const TRAY_SETTINGS: readonly TrayPage[] = [
  {
    path: "tray-settings",
    name: "shell.pageTraySettings",
    about: "shell.pageTraySettingsAbout",
    also: "shell.pageTraySettingsAlso",
  },
  { path: "members", name: "shell.pageMembers", about: "shell.pageMembersAbout", also: "shell.pageMembersAlso" },
  {
    path: "access-log",
    name: "shell.pageAccessLog",
    about: "shell.pageAccessLogAbout",
    also: "shell.pageAccessLogAlso",
    forLeads: true,
  },
  {
    path: "categories",
    name: "shell.pageCategories",
    about: "shell.pageCategoriesAbout",
    also: "shell.pageCategoriesAlso",
  },
  { path: "rules", name: "shell.pageRules", about: "shell.pageRulesAbout", also: "shell.pageRulesAlso" },
  { path: "rounds", name: "shell.pageRounds", about: "shell.pageRoundsAbout", also: "shell.pageRoundsAlso" },
  {
    path: "automatic-answers",
    name: "shell.pageAutomaticAnswers",
    about: "shell.pageAutomaticAnswersAbout",
    also: "shell.pageAutomaticAnswersAlso",
  },
  {
    path: "templates",
    name: "shell.pageTemplates",
    about: "shell.pageTemplatesAbout",
    also: "shell.pageTemplatesAlso",
  },
  {
    path: "record-types",
    name: "shell.pageRecordTypes",
    about: "shell.pageRecordTypesAbout",
    also: "shell.pageRecordTypesAlso",
  },
  {
    path: "retention",
    name: "shell.pageRetention",
    about: "shell.pageRetentionAbout",
    also: "shell.pageRetentionAlso",
  },
  {
    path: "bin-and-junk",
    name: "shell.pageBinAndJunk",
    about: "shell.pageBinAndJunkAbout",
    also: "shell.pageBinAndJunkAlso",
  },
  { path: "import", name: "shell.pageImport", about: "shell.pageImportAbout", also: "shell.pageImportAlso" },
  { path: "journal", name: "shell.pageJournal", about: "shell.pageJournalAbout", also: "shell.pageJournalAlso" },
];

/** What is a member's own. */
export const OWN_SETTINGS: readonly TrayPage[] = [
  { path: "account", name: "shell.pageAccount", about: "shell.pageAccountAbout", also: "shell.pageAccountAlso" },
  { path: "keys", name: "shell.pageKeys", about: "shell.pageKeysAbout", also: "shell.pageKeysAlso" },
  {
    path: "preferences",
    name: "shell.pagePreferences",
    about: "shell.pagePreferencesAbout",
    also: "shell.pagePreferencesAlso",
  },
  {
    path: "notification-settings",
    name: "shell.pageNotificationSettings",
    about: "shell.pageNotificationSettingsAbout",
    also: "shell.pageNotificationSettingsAlso",
  },
  { path: "away", name: "shell.pageAway", about: "shell.pageAwayAbout", also: "shell.pageAwayAlso" },
];

/** Those that a member may open. */
export function pagesFor(pages: readonly TrayPage[], mayLead: boolean): readonly TrayPage[] {
  return pages.filter(({ forLeads }) => forLeads !== true || mayLead);
}

/** A page in the language of whoever looks. */
export type SaidPage = Omit<TrayPage, "name" | "about" | "also"> & {
  readonly name: string;
  readonly about: string;
  readonly also: readonly string[];
};

/** Pages as they are said. */
export function saidPages(say: (key: ShellKey) => string, pages: readonly TrayPage[]): readonly SaidPage[] {
  return pages.map((page) => ({
    ...page,
    name: say(page.name),
    about: say(page.about),
    also: say(page.also).split(", "),
  }));
}
