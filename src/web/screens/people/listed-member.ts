import type { Role } from "../../../operations/index.server";
import type { peopleTexts } from "../../../texts/en/people";
import type { PlainKey } from "../../../texts/say";

/** Somebody in the tray, as its page lists her. */
export type ListedMember = {
  readonly id: string;
  readonly name: string;
  readonly signInName: string;
  readonly role: Role;
};

/** A group of them that takes turns. */
export type ListedGroup = { readonly id: string; readonly name: string; readonly memberIds: readonly string[] };

/** What each role may do, in the words of the menu. */
export const ROLE_NAMES: Readonly<Record<Role, PlainKey<typeof peopleTexts>>> = {
  lead: "people.lead",
  member: "people.member",
  reader: "people.reader",
};
export const ROLES = Object.entries(ROLE_NAMES) as [Role, PlainKey<typeof peopleTexts>][];
