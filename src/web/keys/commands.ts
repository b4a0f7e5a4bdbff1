/** Everything that can be done by a key or from the command field: its name there, the key it comes with, its group, and whether it opens something that takes the next keys. */
export const COMMANDS = {
  down: { name: "Next conversation", key: "j", group: "Moving" },
  up: { name: "Previous conversation", key: "k", group: "Moving" },
  open: { name: "Open", key: "Enter", group: "Moving" },
  back: { name: "Back", key: "Escape", group: "Moving" },
  choose: { name: "Select or deselect", key: "x", group: "Moving" },
  "choose-down": { name: "Select and go to the next", key: "J", group: "Moving" },
  "choose-all": { name: "Select all that match", key: "X", group: "Moving" },
  "show-new": { name: "Show what is new", key: "i", group: "Moving" },
  answer: { name: "Answer", key: "r", group: "Deciding", opens: true },
  assign: { name: "Assign to a colleague", key: "a", group: "Deciding", opens: true },
  take: { name: "Assign to yourself", key: "t", group: "Deciding" },
  "give-back": { name: "Unassign", key: "T", group: "Deciding" },
  follow: { name: "Follow it, or no longer", key: "y", group: "Deciding" },
  categories: { name: "Categories", key: "c", group: "Deciding", opens: true },
  "give-by-key": { name: "Add a category by its key", key: "g", group: "Deciding", opens: true },
  file: { name: "File to a record", key: "f", group: "Deciding", opens: true },
  expect: { name: "Waiting for reply", key: "w", group: "Deciding", opens: true },
  acknowledge: { name: "That was no answer yet", key: "V", group: "Deciding" },
  "no-answer": { name: "No answer needed", key: "v", group: "Deciding" },
  expire: { name: "Set expiry", key: "E", group: "Deciding", opens: true },
  rest: { name: "Rest until", key: "l", group: "Deciding", opens: true },
  "follow-up": { name: "Follow-up", key: "d", group: "Deciding", opens: true },
  urgency: { name: "Urgency, one step on", key: "u", group: "Deciding" },
  settle: { name: "Settle", key: "s", group: "Deciding" },
  bin: { name: "Bin, or bring back", key: "b", group: "Deciding" },
  junk: { name: "Mark as junk", key: "h", group: "Deciding" },
  keep: { name: "Keep as our move", key: "m", group: "Deciding" },
  note: { name: "Note for colleagues", key: "n", group: "Deciding", opens: true },
  "shown-part": { name: "Show as it was sent, or as text", key: "p", group: "Moving" },
  unread: { name: "Mark unread", key: "e", group: "Deciding" },
  "accept-1": { name: "Accept the first proposal", key: "1", group: "Deciding" },
  "accept-2": { name: "Accept the second proposal", key: "2", group: "Deciding" },
  "accept-3": { name: "Accept the third proposal", key: "3", group: "Deciding" },
  "accept-4": { name: "Accept the fourth proposal", key: "4", group: "Deciding" },
  "accept-all": { name: "Accept all proposals and go on", key: "Enter", group: "Deciding" },
  skip: { name: "Skip, for later in this run", key: "j", group: "Deciding" },
  undo: { name: "Undo", key: "z", group: "Deciding" },
  redo: { name: "Redo", key: "Z", group: "Deciding" },
  "sort-run": { name: "Sort run", key: "o", group: "Going" },
  mine: { name: "Mine, and what I cover", key: "M", group: "Going" },
  nobodys: { name: "Nobody’s", key: "N", group: "Going" },
  theirs: { name: "My colleagues’", key: "C", group: "Going" },
  notifications: { name: "Notifications", key: "q", group: "Going" },
  search: { name: "Search", key: "/", group: "Going", opens: true },
  commands: { name: "Command field", key: ".", group: "Going", opens: true },
  "shelf-1": { name: "First place of the shelf", key: "Shift+1", group: "Shelf" },
  "shelf-2": { name: "Second place of the shelf", key: "Shift+2", group: "Shelf" },
  "shelf-3": { name: "Third place of the shelf", key: "Shift+3", group: "Shelf" },
  "shelf-4": { name: "Fourth place of the shelf", key: "Shift+4", group: "Shelf" },
  "shelf-5": { name: "Fifth place of the shelf", key: "Shift+5", group: "Shelf" },
  "shelf-6": { name: "Sixth place of the shelf", key: "Shift+6", group: "Shelf" },
  "shelf-7": { name: "Seventh place of the shelf", key: "Shift+7", group: "Shelf" },
  "shelf-8": { name: "Eighth place of the shelf", key: "Shift+8", group: "Shelf" },
  "shelf-9": { name: "Ninth place of the shelf", key: "Shift+9", group: "Shelf" },
  keys: { name: "The keys that work here", key: "?", group: "Going", opens: true },
} as const satisfies Readonly<Record<string, { name: string; key: string; group: string; opens?: true }>>;

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
