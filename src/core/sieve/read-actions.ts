import { readEmailAddress } from "../kernel/email-address";
import { type CategoryId, type RecordId, trustedId } from "../kernel/ids";
import type { RuleAction } from "../rules/rule";
import { type Given, givenArguments, onlyText, type Signature } from "./arguments";
import type { ScriptTest, ScriptText } from "./read-script";
import type { Circumstances } from "./read-tests";
import { NoCounterpart, said } from "./script-problem";

/** The mailboxes that stand for what a tray has places of its own for, in lower case. */
export const PLACES: Readonly<Record<string, RuleAction>> = {
  trash: { kind: "bin" },
  junk: { kind: "junk" },
  archive: { kind: "settle" },
};
/** Below this one are mailboxes of records. */
export const RECORDS = "Records/";

/** What a command does: what is done to the conversation, and what becomes of the message's place in the inbox. */
export type Done = {
  readonly actions: readonly RuleAction[];
  /** RFC 5228 2.10.2: whether it stays in the inbox all the same, is taken from there, lies elsewhere too, is thrown away, or nothing of that. */
  readonly inbox: "kept" | "left" | "copied" | "discarded" | null;
};

type Reads = (command: ScriptTest, circumstances: Circumstances) => Done;

const USUAL_DAYS = 7;
const MAX_DAYS = 365;

const FLAGGED: Signature["tags"] = { flags: "texts" };

/** What a command of a script does. Throws `ScriptFault` or `NoCounterpart`. */
export function readAction(command: ScriptTest, circumstances: Circumstances): Done {
  const read = Object.hasOwn(COMMANDS, command.name) ? COMMANDS[command.name] : undefined;
  if (read === undefined) throw new NoCounterpart(command.at, said("sieve.nothingDoes", { name: command.name }));
  return read(command, circumstances);
}

const COMMANDS: Readonly<Record<string, Reads>> = {
  keep: (command, circumstances) => {
    const given = givenArguments(command, { tags: FLAGGED, positional: [] });
    return { actions: flagged(given, given.textsOf("flags"), circumstances, true), inbox: "kept" };
  },
  discard: (command) => {
    givenArguments(command, { tags: {}, positional: [] });
    return { actions: [], inbox: "discarded" };
  },
  fileinto: (command, circumstances) => {
    circumstances.need("fileinto", command.at);
    const given = givenArguments(command, { tags: { ...FLAGGED, copy: "flag", create: "flag" }, positional: ["text"] });
    if (given.has("copy")) circumstances.need("copy", command.at);
    if (given.has("create")) circumstances.need("mailbox", command.at);
    const written = onlyText(given.texts(0)) as ScriptText;
    const mailbox = circumstances.text(written).replace(/^inbox[./](?=.)/i, "");
    const flags = flagged(given, given.textsOf("flags"), circumstances, true);
    if (/^inbox$/i.test(mailbox)) return { actions: flags, inbox: "kept" };
    return { actions: [placeOf(mailbox), ...flags], inbox: given.has("copy") ? "copied" : "left" };
  },
  redirect: (command, circumstances) => {
    const given = givenArguments(command, { tags: { copy: "flag" }, positional: ["text"] });
    if (given.has("copy")) circumstances.need("copy", command.at);
    const written = circumstances.text(onlyText(given.texts(0)) as ScriptText);
    const to = readEmailAddress(written);
    if (to === null) throw new NoCounterpart(command.at, said("sieve.isNoAddress", { text: written }));
    return { actions: [{ kind: "redirect", to }], inbox: given.has("copy") ? "copied" : "left" };
  },
  vacation: (command, circumstances) => {
    circumstances.need("vacation", command.at);
    const given = givenArguments(command, {
      tags: { days: "number", subject: "text", from: "text", addresses: "texts", mime: "flag", handle: "text" },
      positional: ["text"],
    });
    const strange = ["subject", "from", "mime"].find((tag) => given.has(tag));
    if (strange !== undefined) throw new NoCounterpart(command.at, said("sieve.noAnswerWith", { tag: `:${strange}` }));
    const text = circumstances.text(onlyText(given.texts(0)) as ScriptText);
    // RFC 5230 4.1: a site has bounds of its own, and one of them is at least a day.
    const days = Math.min(MAX_DAYS, Math.max(1, given.numberOf("days") ?? USUAL_DAYS));
    return { actions: [{ kind: "answer", text, days }], inbox: null };
  },
  addflag: (command, circumstances) => flags(command, circumstances, true),
  setflag: (command, circumstances) => flags(command, circumstances, true),
  removeflag: (command, circumstances) => flags(command, circumstances, false),
};

function placeOf(mailbox: string): RuleAction {
  const place = PLACES[mailbox.toLowerCase()];
  if (place !== undefined) return place;
  const record = mailbox.startsWith(RECORDS) ? mailbox.slice(RECORDS.length) : "";
  if (record !== "") return { kind: "file", recordId: trustedId<RecordId>(record) };
  return { kind: "categorise", categoryId: trustedId<CategoryId>(mailbox), give: true };
}

function flags(command: ScriptTest, circumstances: Circumstances, give: boolean): Done {
  circumstances.need("imap4flags", command.at);
  // RFC 5232 3: a variable may stand before the flags.
  if (command.args.length > 1) throw new NoCounterpart(command.at, said("sieve.noFlagsOfVariables"));
  const given = givenArguments(command, { tags: {}, positional: ["texts"] });
  return { actions: flagged(given, given.texts(0), circumstances, give), inbox: null };
}

function flagged(
  given: Given,
  written: readonly ScriptText[],
  circumstances: Circumstances,
  give: boolean,
): RuleAction[] {
  if (written.length > 0) circumstances.need("imap4flags", given.at);
  // RFC 5232 2: several may stand in one text.
  const names = written.flatMap((one) =>
    circumstances
      .text(one)
      .split(/ +/)
      .filter((name) => name !== ""),
  );
  return names.map((name): RuleAction => {
    if (give && name.toLowerCase() === "\\flagged") return { kind: "urgency", urgency: "today" };
    if (name.startsWith("\\")) throw new NoCounterpart(given.at, said("sieve.noFlag", { name }));
    return { kind: "categorise", categoryId: trustedId<CategoryId>(name), give };
  });
}
