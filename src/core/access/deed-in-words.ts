import { assertNever } from "../kernel/assert-never";
import type { AccessDeed, ExportedThing } from "./access-event";
import type { Role } from "./role";

const ROLES: Readonly<Record<Role, string>> = { lead: "lead", member: "member", reader: "reader" };
const THINGS: Readonly<Record<ExportedThing, readonly [one: string, many: string]>> = {
  conversation: ["a conversation with 1 message", "a conversation with # messages"],
  search: ["what a search found, 1 message", "what a search found, # messages"],
  tray: ["the whole tray, 1 message", "the whole tray, # messages"],
  records: ["the register, 1 record", "the register, # records"],
  categories: ["the categories, 1 of them", "the categories, # of them"],
};

/** What a deed was done to: a member by name, a record by code; null where there is none, or whoever reads may not know. */
export type DoneTo = { readonly about: string | null; readonly recordCode: string | null };

/** A deed as the predicate of a sentence about whoever did it. */
export function accessDeedInWords(deed: AccessDeed, { about, recordCode }: DoneTo): string {
  const whom = about ?? "somebody";
  switch (deed.kind) {
    case "signed-in":
      return "signed in";
    case "sign-in-failed":
      return deed.name === null ? "failed to sign in by a name that nobody has" : `failed to sign in as ${deed.name}`;
    case "password-refused":
      return "gave a wrong password when asked for their own";
    case "signed-out":
      return "signed out";
    case "sessions-ended":
      return "ended sessions elsewhere";
    case "password-changed":
      return about === null ? "changed their password" : `changed the password of ${about}`;
    case "invited":
      return `made an invitation for a ${ROLES[deed.role]}`;
    case "invitation-taken-back":
      return "took an invitation back";
    case "came-in":
      return `joined by an invitation as ${ROLES[deed.role]}`;
    case "role-changed":
      return `changed ${whom} from ${ROLES[deed.from]} to ${ROLES[deed.to]}`;
    case "shut-out":
      return `removed the access of ${whom}`;
    case "disabled":
      return `disabled ${whom}`;
    case "let-in-again":
      return `restored the access of ${whom}`;
    case "record-access-changed":
      return `changed who has access to ${recordCode ?? "a record"}`;
    case "exported": {
      const [one, many] = THINGS[deed.what];
      return `exported ${deed.count === 1 ? one : many.replace("#", deed.count.toLocaleString("en"))} (${deed.format})`;
    }
    case "pack-ordered":
      return "ordered a ZIP of mail";
    case "pack-fetched":
      return "downloaded a ZIP of mail";
    default:
      return assertNever(deed);
  }
}
