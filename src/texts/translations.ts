import type { Message, Messages } from "./catalogue";
import type { English } from "./en/index";

/** What a language says, by what English says in its place: the key on servers, and in browsers the message itself. */
type Translated = ReadonlyMap<string, Message>;

/** A language beside English. Its messages are a file of their own in `translations/`, fetched where somebody reads them. */
export type Translation = {
  /** As BCP 47 writes it. */
  readonly locale: string;
  readonly dir: "ltr" | "rtl";
  readonly load: () => Promise<{ readonly default: Translated }>;
};

/** The messages of a language by key; the build puts what English says in place of the keys for browsers. */
export function translation(messages: Partial<Readonly<Record<keyof English, string>>>): Translated {
  return new Map(Object.entries<Message>(messages as Messages));
}

/** Each names its file: `{ locale: "nl", dir: "ltr", load: () => import("./translations/nl") }`. */
export const TRANSLATIONS: readonly Translation[] = [];
