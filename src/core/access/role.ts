/** What somebody may do in a tray: lead it, decide about its mail, or only look. */
export type Role = "lead" | "member" | "reader";
