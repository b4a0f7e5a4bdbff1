import { journalTexts } from "../../texts/en/journal";
import { type Said, saidOf } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import type { AccessDeed, ExportedThing } from "./access-event";
import type { Role } from "./role";

const said = saidOf(journalTexts);

const ROLE_NAMES: Readonly<Record<Role, Said>> = {
  lead: said("journal.lead"),
  member: said("journal.member"),
  reader: said("journal.reader"),
};

const EXPORTED: Readonly<Record<ExportedThing, (count: number) => Said>> = {
  conversation: (count) => said("journal.aConversation", { count }),
  search: (count) => said("journal.whatASearchFound", { count }),
  tray: (count) => said("journal.theWholeTray", { count }),
  records: (count) => said("journal.theRegister", { count }),
  categories: (count) => said("journal.theCategories", { count }),
};

/** What a deed was done to: a member by name, a record by code; null where there is none, or whoever reads may not know. */
export type DoneTo = { readonly about: string | null; readonly recordCode: string | null };

/** A deed as the predicate of a sentence about whoever did it. */
export function accessDeedInWords(deed: AccessDeed, { about, recordCode }: DoneTo): Said {
  const whom = about ?? said("journal.somebody");
  switch (deed.kind) {
    case "signed-in":
      return said("journal.signedIn");
    case "sign-in-failed":
      return deed.name === null
        ? said("journal.failedToSignInBy")
        : said("journal.failedToSignInAs", { name: deed.name });
    case "password-refused":
      return said("journal.gaveAWrongPasswordWhen");
    case "signed-out":
      return said("journal.signedOut");
    case "sessions-ended":
      return said("journal.endedSessionsElsewhere");
    case "password-changed":
      return about === null ? said("journal.changedTheirPassword") : said("journal.changedThePasswordOf", { about });
    case "invited":
      return said("journal.madeAnInvitationForA", { role: ROLE_NAMES[deed.role] });
    case "invitation-taken-back":
      return said("journal.tookAnInvitationBack");
    case "came-in":
      return said("journal.joinedByAnInvitationAs", { role: ROLE_NAMES[deed.role] });
    case "role-changed":
      return said("journal.changedFromTo", { whom, from: ROLE_NAMES[deed.from], to: ROLE_NAMES[deed.to] });
    case "shut-out":
      return said("journal.removedTheAccessOf", { whom });
    case "disabled":
      return said("journal.disabled", { whom });
    case "let-in-again":
      return said("journal.restoredTheAccessOf", { whom });
    case "record-access-changed":
      return said("journal.changedWhoHasAccessTo", { record: recordCode ?? said("journal.aRecord") });
    case "exported":
      return said("journal.exported", { what: EXPORTED[deed.what](deed.count), format: deed.format });
    case "pack-ordered":
      return said("journal.orderedAZipOfMail");
    case "pack-fetched":
      return said("journal.downloadedAZipOfMail");
    default:
      return assertNever(deed);
  }
}
