import type { MessageFormatElement } from "@formatjs/icu-messageformat-parser";

/** What is said, by key, in ICU MessageFormat. */
export type Messages = Readonly<Record<string, string>>;

/** A message as it was written, or parsed already by the build. */
export type Message = string | readonly MessageFormatElement[];

const english = new Map<Message, Message>();

/** The English messages of one room, by keys that begin with its name: no two rooms have the same. */
export function catalogue<const Catalogue extends Messages>(messages: Catalogue): Catalogue {
  for (const [key, message] of Object.entries(messages)) english.set(key, message);
  return messages;
}

/** What a key says in English. In browsers, where the build has put the message in its place, it is the message itself. */
export function englishOf(key: Message): Message {
  return english.get(key) ?? key;
}
