import { conversationTexts } from "../../texts/en/conversation";
import { type Said, saidOf } from "../../texts/said";
import { baseSubject } from "./base-subject";

const said = saidOf(conversationTexts);

/** A message of ours that asked something: what it said, and what it was about. */
export type Asked = { readonly subject: string; readonly ownText: string; readonly recordCodes: readonly string[] };

/** A message from outside that began a conversation of its own. */
export type Unlinked = { readonly subject: string; readonly ownText: string; readonly restText: string };

/** Why a message that answers nothing by its fields may answer what we asked elsewhere. */
export type PossibleParent =
  | { readonly kind: "quotes"; readonly line: string }
  | { readonly kind: "names-subject" }
  | { readonly kind: "names-record"; readonly code: string };

// Shorter lines ("Kind regards", "Thank you") stand in everybody's letters, shorter subjects in everybody's texts.
const LEAST_LINE = 25;
const LEAST_SUBJECT = 8;

const plain = (text: string) => text.toLowerCase().replace(/\s+/g, " ").trim();
const unquoted = (text: string) => plain(text.replace(/^[>\s]+/gm, ""));

/**
 * Why somebody whom we asked may answer with a message that names none of ours in its fields: it quotes a line of what we
 * wrote, names its subject, or a record that the question is filed to. Null where nothing speaks for it.
 */
export function possibleParent(message: Unlinked, asked: Asked): PossibleParent | null {
  const quoted = unquoted(`${message.ownText}\n${message.restText}`);
  // Broken anew by another program, a line is found by its sentence.
  const sentences = asked.ownText.split(/(?<=[.!?])\s+|\n+/);
  const line = sentences.find((one) => plain(one).length >= LEAST_LINE && quoted.includes(plain(one)));
  if (line !== undefined) return { kind: "quotes", line: line.trim() };
  const code = asked.recordCodes.find((one) => quoted.includes(one.toLowerCase()) || message.subject.includes(one));
  if (code !== undefined) return { kind: "names-record", code };
  const about = baseSubject(asked.subject).base;
  const isNamed = about.length >= LEAST_SUBJECT && (plain(message.subject).includes(about) || quoted.includes(about));
  return isNamed ? { kind: "names-subject" } : null;
}

/** The reason as one reads it. */
export function possibleParentInWords(reason: PossibleParent): Said {
  switch (reason.kind) {
    case "quotes":
      return said("conversation.itQuotes", { line: reason.line });
    case "names-record":
      return said("conversation.itNames", { code: reason.code });
    case "names-subject":
      return said("conversation.itNamesItsSubject");
  }
}
