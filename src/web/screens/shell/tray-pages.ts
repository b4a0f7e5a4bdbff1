/** A page of a tray that is no list of conversations. */
export type TrayPage = {
  /** Below the tray's own. */
  readonly path: string;
  readonly name: string;
  /** What it is for, in a line. */
  readonly about: string;
  /** What stands there and what people may call it, by which it is found. */
  readonly also: readonly string[];
  readonly forLeads?: true;
};

/** What the day's work needs beside the standings. */
export const DAY_PAGES: readonly TrayPage[] = [
  {
    path: "sort-run/to-sort",
    name: "Sort run",
    about: "To sort, one conversation after the other",
    also: ["triage", "go through new mail", "one by one"],
  },
  {
    path: "records",
    name: "Records",
    about: "Clients and projects, and what is filed to them",
    also: ["register", "files", "projects", "clients", "cases"],
  },
  {
    path: "arrangement",
    name: "My arrangement",
    about: "Records in an order of your own",
    also: ["my records", "folders", "tree"],
  },
  {
    path: "follow-ups",
    name: "Follow-ups",
    about: "What is to be done by a day",
    also: ["tasks", "to do", "due", "reminders of my own"],
  },
  {
    path: "contacts",
    name: "Contacts",
    about: "Whom the tray deals with",
    also: ["people", "address book", "addresses", "telephone numbers"],
  },
  {
    path: "overview",
    name: "Overview",
    about: "Who has what",
    also: ["workload", "team", "who is busy", "desks", "colleagues"],
  },
  {
    path: "matrix",
    name: "By category",
    about: "What is open in each category, by owner or standing",
    also: ["matrix", "table of categories", "figures"],
  },
  {
    path: "horizon",
    name: "Waiting for reply, by day",
    about: "When answers are expected, and what is late",
    also: ["horizon", "expected replies", "overdue", "reminders"],
  },
  {
    path: "outgoing",
    name: "Outgoing mail",
    about: "What is on its way, and what could not be sent",
    also: ["outbox", "sent", "sending", "failed mail"],
  },
  {
    path: "backlog",
    name: "Older mail",
    about: "Old mail in To sort, settled many at once",
    also: ["backlog", "clean up", "archive old mail"],
  },
  { path: "bin", name: "Bin", about: "What was thrown away and can be brought back", also: ["trash", "deleted"] },
  { path: "junk", name: "Junk", about: "What was marked as junk", also: ["spam", "unwanted mail"] },
];

/** What is the same for everybody in a tray. */
export const TRAY_SETTINGS: readonly TrayPage[] = [
  {
    path: "tray-settings",
    name: "Hours and holidays",
    about: "When the tray is staffed; deadlines, rests and reminders count in these hours",
    also: ["tray settings", "opening times", "working hours", "public holidays", "answer within", "calendar file"],
  },
  {
    path: "members",
    name: "Members and groups",
    about: "Who may look into the tray and decide there",
    also: ["roles", "lead", "reader", "invite", "invitations", "remove access", "team", "users"],
  },
  {
    path: "access-log",
    name: "Access log",
    about: "Who signed in, what was exported, which rights changed",
    also: ["audit", "security", "sign-ins"],
    forLeads: true,
  },
  {
    path: "categories",
    name: "Categories",
    about: "The tags of this tray and of all trays, their colours and keys",
    also: ["tags", "labels", "merge categories", "import categories", "retire"],
  },
  {
    path: "rules",
    name: "Rules",
    about: "What happens by itself when mail comes in",
    also: ["filters", "automatic", "sort automatically"],
  },
  {
    path: "record-types",
    name: "Types of records",
    about: "What kinds of records there are, their codes and what they ask for when something is filed",
    also: ["codes", "filing fields", "particulars"],
  },
  {
    path: "retention",
    name: "Retention",
    about: "How long records are kept, what is due for review, holds",
    also: ["disposal", "hold", "policies", "delete records", "keep until"],
  },
  {
    path: "bin-and-junk",
    name: "Bin, junk and settling",
    about: "When thrown-away mail is deleted, whose mail is junk, whether only filed mail is settled",
    also: ["tray settings", "spam", "junk senders", "empty the bin", "settle only what is filed"],
  },
  {
    path: "import",
    name: "Import mail",
    about: "Takes in mbox and .eml files, and exported records",
    also: ["upload", "mbox", "eml", "migrate", "restore a record"],
  },
  {
    path: "journal",
    name: "Journal",
    about: "What everybody decided, to look up and to undo",
    also: ["history", "undo", "log", "who did what"],
  },
];

/** What is a member's own. */
export const OWN_SETTINGS: readonly TrayPage[] = [
  {
    path: "account",
    name: "Account and sessions",
    about: "Your password, and where you are signed in",
    also: ["password", "sign out elsewhere", "devices", "security"],
  },
  {
    path: "keys",
    name: "Keyboard",
    about: "Which key does what",
    also: ["keyboard and preferences", "shortcuts", "keys"],
  },
  {
    path: "preferences",
    name: "Lists and proposals",
    about: "What happens after a decision, on dropping, and how sure proposals have to be",
    also: ["keyboard and preferences", "after a decision", "dropping on a record", "suggestions", "habits"],
  },
  {
    path: "notification-settings",
    name: "Notifications",
    about: "What you are notified of, how, and when not",
    also: ["watch", "alerts", "quiet hours", "digest", "browser notifications"],
  },
  {
    path: "away",
    name: "Hours and time off",
    about: "When you work, when you are away, and who covers for you",
    also: ["absence", "holiday", "vacation", "out of office", "cover", "working hours"],
  },
];

/** Those that a member may open. */
export function pagesFor(pages: readonly TrayPage[], mayLead: boolean): readonly TrayPage[] {
  return pages.filter(({ forLeads }) => forLeads !== true || mayLead);
}
