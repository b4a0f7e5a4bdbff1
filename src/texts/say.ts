import { IntlMessageFormat } from "intl-messageformat";
import { englishOf, type Message, type Messages, type Value, type ValuesOf } from "./catalogue";
import { needsParser } from "./needs-parser";
import { accentedMessage } from "./pseudo";

type Args<Message> = Message extends string
  ? keyof ValuesOf<Message> extends never
    ? []
    : [values: ValuesOf<Message>]
  : never;

/** Says a message by its key, with the values that it needs and no others. */
export type Say<Catalogue extends object = Messages> = <Key extends keyof Catalogue & string>(
  key: Key,
  ...values: Args<Catalogue[Key]>
) => string;

/** What several catalogues have together. */
export type AllOf<Catalogues extends readonly Messages[]> = Catalogues extends readonly [
  infer First extends Messages,
  ...infer Rest extends readonly Messages[],
]
  ? First & AllOf<Rest>
  : object;

/** The messages that need no values, for tables of what is said. */
export type PlainKey<Catalogue extends object> = {
  [Key in keyof Catalogue & string]: Args<Catalogue[Key]> extends [] ? Key : never;
}[keyof Catalogue & string];

/** A language in which the tray speaks, and how its lines run. */
export type Language = { readonly locale: string; readonly dir: "ltr" | "rtl" };

type Spoken = Language & {
  /** The locale whose plurals, numbers and dates it has. */
  readonly formats: string;
  readonly spoken: (message: Message) => Message;
};

const asItIs = (message: Message) => message;

const LANGUAGES: readonly [Spoken, ...Spoken[]] = [
  { locale: "en", dir: "ltr", formats: "en-GB", spoken: asItIs },
  // To see that a text is translated at all and has room, and that a screen can be mirrored.
  { locale: "en-XA", dir: "ltr", formats: "en-GB", spoken: accentedMessage },
  { locale: "en-XB", dir: "rtl", formats: "en-GB", spoken: accentedMessage },
];

/** The first of these locales, as BCP 47 writes them, that the tray speaks; English where it speaks none. */
export function languageOf(locales: readonly string[]): Language {
  const known = locales.find((wanted) => LANGUAGES.some(({ locale }) => locale === wanted));
  const { locale, dir } = spokenLanguage(known ?? "");
  return { locale, dir };
}

function spokenLanguage(locale: string): Spoken {
  return LANGUAGES.find((language) => language.locale === locale) ?? LANGUAGES[0];
}

const VALUE = /\{(\w+)\}/g;

const sayers = new Map<string, Say>();

/** What says messages in a language; English for one that the tray does not speak. */
export function sayIn(locale: string): Say {
  const language = spokenLanguage(locale);
  const known = sayers.get(language.locale);
  if (known !== undefined) return known;
  const say = sayerOf(language);
  sayers.set(language.locale, say);
  return say;
}

function sayerOf({ spoken, formats }: Spoken): Say {
  const formatted = new Map<Message, string | IntlMessageFormat>();
  const formatOf = (key: Message) => {
    const known = formatted.get(key);
    if (known !== undefined) return known;
    const said = spoken(parsed(englishOf(key)));
    const format = typeof said === "string" ? said : new IntlMessageFormat([...said], formats);
    formatted.set(key, format);
    return format;
  };
  return (key: Message, values?: Readonly<Record<string, Value>>) => {
    try {
      const format = formatOf(key);
      return typeof format === "string"
        ? format.replace(VALUE, (_, name: string) => String(values?.[name] ?? ""))
        : String(format.format(values));
    } catch {
      // A check finds it before anybody does; whoever does after all is told what it was to be.
      return String(englishOf(key));
    }
  };
}

/** A message as the build would have parsed it. */
function parsed(message: Message): Message {
  return typeof message !== "string" || !needsParser(message) ? message : new IntlMessageFormat(message, "en").getAst();
}
