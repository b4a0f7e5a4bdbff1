import { IntlMessageFormat } from "intl-messageformat";
import { englishOf, type Message, type Messages } from "./catalogue";
import { needsParser } from "./needs-parser";
import { accentedMessage } from "./pseudo";
import type { Listed, Moment, MomentForm, Said, Sayable, ValuesArgument, Wording } from "./said";
import { TRANSLATIONS } from "./translations";

/** Says a message by its key, with the values that it needs and no others; or what was put together to be said. */
export type Say<Catalogue extends object = Messages> = {
  (what: Wording | PlainKey<Catalogue>): string;
  // Any string, narrowed to the keys only as an argument: of some thousand keys as its bound, the type checker works out what
  // each needs wherever one is said, which takes it a minute.
  <Key extends string>(
    key: Key & keyof Catalogue,
    ...values: Key extends keyof Catalogue ? ValuesArgument<Catalogue[Key]> : [values?: Said["values"]]
  ): string;
};

/** The messages that need no values, for tables of what is said. */
export type PlainKey<Catalogue extends object> = {
  [Key in keyof Catalogue & string]: ValuesArgument<Catalogue[Key]> extends [] ? Key : never;
}[keyof Catalogue & string];

/** A language in which the tray speaks, and how its lines run. */
export type Language = { readonly locale: string; readonly dir: "ltr" | "rtl" };

type Spoken = Language & {
  /** The locale whose plurals, numbers and dates it has. */
  readonly formats: string;
  /** What it says where English has this message, or in a browser says it. */
  readonly spoken: (key: Message) => Message;
};

const accentedOf = (key: Message) => accentedMessage(parsed(englishOf(key)));

const LANGUAGES: readonly [Spoken, ...Spoken[]] = [
  { locale: "en", dir: "ltr", formats: "en-GB", spoken: englishOf },
  // To see that a text is translated at all and has room, and that a screen can be mirrored.
  { locale: "en-XA", dir: "ltr", formats: "en-GB", spoken: accentedOf },
  { locale: "en-XB", dir: "rtl", formats: "en-GB", spoken: accentedOf },
];

const fetched = new Map<string, Spoken>();

/** Fetches what a language says, before anything is said in it; what comes with the program itself is there already. */
export async function loadLanguage(locale: string, translations = TRANSLATIONS): Promise<void> {
  const translation = translations.find((one) => one.locale === locale);
  if (translation === undefined || fetched.has(locale)) return;
  const { default: messages } = await translation.load();
  // What nobody has translated yet is said in English.
  const spoken = (key: Message) => messages.get(nameOf(key)) ?? englishOf(key);
  fetched.set(locale, { locale, dir: translation.dir, formats: locale, spoken });
}

const nameOf = (key: Message) => (typeof key === "string" ? key : JSON.stringify(key));

/** Fetches all languages, for a server. */
export async function loadLanguages(): Promise<void> {
  await Promise.all(TRANSLATIONS.map(({ locale }) => loadLanguage(locale)));
}

/** The first of these locales, as BCP 47 writes them, that the tray speaks; English where it speaks none. */
export function languageOf(locales: readonly string[]): Language {
  const known = locales.find((wanted) => fetched.has(wanted) || LANGUAGES.some(({ locale }) => locale === wanted));
  const { locale, dir } = spokenLanguage(known ?? "");
  return { locale, dir };
}

function spokenLanguage(locale: string): Spoken {
  return fetched.get(locale) ?? LANGUAGES.find((language) => language.locale === locale) ?? LANGUAGES[0];
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
    const said = parsed(spoken(key));
    const format = typeof said === "string" ? said : new IntlMessageFormat([...said], formats);
    formatted.set(key, format);
    return format;
  };
  const textOf = (value: Sayable | Date | undefined): string | number | Date =>
    value === undefined ? "" : typeof value !== "object" || value instanceof Date ? value : wordingOf(value);
  const sayMessage = (key: Message, values: Said["values"]): string => {
    try {
      const format = formatOf(key);
      if (typeof format === "string") return format.replace(VALUE, (_, name: string) => String(textOf(values[name])));
      const texts = Object.entries(values).map(([name, value]) => [name, textOf(value)]);
      return String(format.format(Object.fromEntries(texts)));
    } catch {
      // A check finds it before anybody does; whoever does after all is told what it was to be.
      return String(englishOf(key));
    }
  };
  const wordingOf = (wording: Wording): string => {
    if ("key" in wording) return sayMessage(wording.key, wording.values);
    if ("figure" in wording) return figureFormat(formats).format(wording.figure);
    if ("form" in wording) return momentFormat(formats, wording).format(wording.at);
    return listFormat(formats, wording.by).format(wording.all.map((one) => String(textOf(one))));
  };
  return (what: Message | Wording, values: Said["values"] = {}) =>
    typeof what === "string" || Array.isArray(what) ? sayMessage(what as Message, values) : wordingOf(what as Wording);
}

/** A message as the build would have parsed it. */
function parsed(message: Message): Message {
  return typeof message !== "string" || !needsParser(message) ? message : new IntlMessageFormat(message, "en").getAst();
}

const FORMS: Readonly<Record<MomentForm, Intl.DateTimeFormatOptions>> = {
  time: { hour: "2-digit", minute: "2-digit", hourCycle: "h23" },
  weekday: { weekday: "short" },
  day: { day: "numeric", month: "short" },
  "day-of-year": { day: "numeric", month: "short", year: "numeric" },
  "day-in-full": { day: "numeric", month: "long", year: "numeric" },
  month: { month: "long" },
  "month-of-year": { month: "long", year: "numeric" },
  "short-month": { month: "short", year: "2-digit" },
};

const LISTS: Readonly<Record<Listed["by"], Intl.ListFormatOptions>> = {
  and: { type: "conjunction" },
  or: { type: "disjunction" },
  comma: { type: "unit" },
};

/** One of its kind for each of what it is made with: making a formatter costs a hundred times as much as using it. */
function keptBy<Given extends readonly string[], Made>(make: (...given: Given) => Made): (...given: Given) => Made {
  const made = new Map<string, Made>();
  return (...given) => {
    const name = given.join(" ");
    const known = made.get(name) ?? make(...given);
    made.set(name, known);
    return known;
  };
}

const figureFormat = keptBy((formats: string) => new Intl.NumberFormat(formats));
const listFormat = keptBy((formats: string, by: Listed["by"]) => new Intl.ListFormat(formats, LISTS[by]));
const dateFormat = keptBy(
  (formats: string, form: MomentForm, timeZone: string) =>
    new Intl.DateTimeFormat(formats, { ...FORMS[form], timeZone, calendar: "gregory" }),
);
const momentFormat = (formats: string, { form, zone }: Moment) => dateFormat(formats, form, zone);
