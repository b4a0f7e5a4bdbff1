import type { commonTexts } from "../../texts/en/common";
import type { keysTexts } from "../../texts/en/keys";
import type { PlainKey } from "../../texts/say";

type CommandKey = PlainKey<typeof keysTexts & typeof commonTexts>;

/** The groups of commands, by what they are called. */
export const COMMAND_GROUPS = {
  moving: "keys.moving",
  deciding: "keys.deciding",
  going: "keys.going",
  shelf: "keys.shelf",
} as const;

/** Everything that can be done by a key or from the command field: its name there, the key it comes with, its group, and whether it opens something that takes the next keys. */
export const COMMANDS = {
  down: { name: "keys.nextConversation", key: "j", group: "moving" },
  up: { name: "keys.previousConversation", key: "k", group: "moving" },
  open: { name: "common.open", key: "Enter", group: "moving" },
  back: { name: "keys.back", key: "Escape", group: "moving" },
  choose: { name: "keys.selectOrDeselect", key: "x", group: "moving" },
  "choose-down": { name: "keys.selectAndGoToThe", key: "J", group: "moving" },
  "choose-all": { name: "keys.selectAllThatMatch", key: "X", group: "moving" },
  "show-new": { name: "keys.showWhatIsNew", key: "i", group: "moving" },
  answer: { name: "common.answer", key: "r", group: "deciding", opens: true },
  assign: { name: "keys.assignToAColleague", key: "a", group: "deciding", opens: true },
  take: { name: "keys.assignToYourself", key: "t", group: "deciding" },
  "give-back": { name: "keys.unassign", key: "T", group: "deciding" },
  follow: { name: "keys.followItOrNoLonger", key: "y", group: "deciding" },
  categories: { name: "common.categories", key: "c", group: "deciding", opens: true },
  "give-by-key": { name: "keys.addACategoryByIts", key: "g", group: "deciding", opens: true },
  file: { name: "keys.fileToARecord", key: "f", group: "deciding", opens: true },
  expect: { name: "keys.waitingForReply", key: "w", group: "deciding", opens: true },
  acknowledge: { name: "keys.thatWasNoAnswerYet", key: "V", group: "deciding" },
  "no-answer": { name: "keys.noAnswerNeeded", key: "v", group: "deciding" },
  expire: { name: "keys.setExpiry", key: "E", group: "deciding", opens: true },
  rest: { name: "keys.restUntil", key: "l", group: "deciding", opens: true },
  "follow-up": { name: "keys.followUp", key: "d", group: "deciding", opens: true },
  urgency: { name: "keys.urgencyOneStepOn", key: "u", group: "deciding" },
  settle: { name: "common.settle", key: "s", group: "deciding" },
  bin: { name: "keys.binOrBringBack", key: "b", group: "deciding" },
  "let-in": { name: "keys.letInBeforeItsRound", key: "I", group: "deciding" },
  junk: { name: "keys.markAsJunk", key: "h", group: "deciding" },
  keep: { name: "keys.keepAsOurMove", key: "m", group: "deciding" },
  note: { name: "keys.noteForColleagues", key: "n", group: "deciding", opens: true },
  "shown-part": { name: "keys.showAsItWasSent", key: "p", group: "moving" },
  unread: { name: "keys.markUnread", key: "e", group: "deciding" },
  "accept-1": { name: "keys.acceptTheFirstProposal", key: "1", group: "deciding" },
  "accept-2": { name: "keys.acceptTheSecondProposal", key: "2", group: "deciding" },
  "accept-3": { name: "keys.acceptTheThirdProposal", key: "3", group: "deciding" },
  "accept-4": { name: "keys.acceptTheFourthProposal", key: "4", group: "deciding" },
  "accept-all": { name: "keys.acceptAllProposalsAndGo", key: "Enter", group: "deciding" },
  skip: { name: "keys.skipForLaterInThis", key: "j", group: "deciding" },
  undo: { name: "common.undo", key: "z", group: "deciding" },
  redo: { name: "keys.redo", key: "Z", group: "deciding" },
  "sort-run": { name: "keys.sortRun", key: "o", group: "going" },
  mine: { name: "keys.mineAndWhatICover", key: "M", group: "going" },
  nobodys: { name: "keys.nobodys", key: "N", group: "going" },
  theirs: { name: "keys.myColleagues", key: "C", group: "going" },
  notifications: { name: "keys.notifications", key: "q", group: "going" },
  write: { name: "keys.write", key: "W", group: "going" },
  search: { name: "common.search", key: "/", group: "going", opens: true },
  commands: { name: "keys.commandField", key: ".", group: "going", opens: true },
  "shelf-1": { name: "keys.firstPlaceOfTheShelf", key: "Shift+1", group: "shelf" },
  "shelf-2": { name: "keys.secondPlaceOfTheShelf", key: "Shift+2", group: "shelf" },
  "shelf-3": { name: "keys.thirdPlaceOfTheShelf", key: "Shift+3", group: "shelf" },
  "shelf-4": { name: "keys.fourthPlaceOfTheShelf", key: "Shift+4", group: "shelf" },
  "shelf-5": { name: "keys.fifthPlaceOfTheShelf", key: "Shift+5", group: "shelf" },
  "shelf-6": { name: "keys.sixthPlaceOfTheShelf", key: "Shift+6", group: "shelf" },
  "shelf-7": { name: "keys.seventhPlaceOfTheShelf", key: "Shift+7", group: "shelf" },
  "shelf-8": { name: "keys.eighthPlaceOfTheShelf", key: "Shift+8", group: "shelf" },
  "shelf-9": { name: "keys.ninthPlaceOfTheShelf", key: "Shift+9", group: "shelf" },
  keys: { name: "keys.theKeysThatWorkHere", key: "?", group: "going", opens: true },
} as const satisfies Readonly<
  Record<string, { name: CommandKey; key: string; group: keyof typeof COMMAND_GROUPS; opens?: true }>
>;

export type CommandId = keyof typeof COMMANDS;
export const COMMAND_IDS = Object.keys(COMMANDS) as CommandId[];

/** The keys that a member gave to commands, by the command's id. */
export type KeyChoices = Readonly<Record<string, string>>;

/** The key that works a command for a member. */
export function keyOf(id: CommandId, chosen: KeyChoices): string {
  return chosen[id] ?? COMMANDS[id].key;
}

/** The commands among these that a key works; more than one is a conflict. */
export function commandsOfKey(key: string, ids: readonly CommandId[], chosen: KeyChoices): CommandId[] {
  return ids.filter((id) => keyOf(id, chosen) === key);
}

// These pairs are never there at the same time: one belongs to lists, the other to the sort run.
const APART: readonly (readonly [CommandId, CommandId])[] = [
  ["open", "accept-all"],
  ["down", "skip"],
];

/** The other commands that a key would work beside this one, and that may be there at the same time. */
export function conflictsOf(id: CommandId, key: string, chosen: KeyChoices): CommandId[] {
  return commandsOfKey(key, COMMAND_IDS, chosen).filter(
    (other) => other !== id && !APART.some((pair) => pair.includes(id) && pair.includes(other)),
  );
}

const SHOWN: Readonly<Record<string, string>> = { Escape: "Esc", Enter: "↵", " ": "Space" };

/** A key as it stands on a cap. */
export function keyCap(key: string): string {
  return SHOWN[key] ?? key;
}

/** True for a key that can be given to a command: one that types something, or one of the few with a name. */
export function isGivableKey(key: string): boolean {
  return [...key].length === 1 ? key !== " " : ["Enter", "Escape", "Delete", "Backspace"].includes(key);
}
