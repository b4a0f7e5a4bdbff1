// How a letter begins, to somebody by name and to whoever reads it.
const GREETINGS: Readonly<Record<string, readonly [named: string, unnamed: string]>> = {
  de: ["Guten Tag {name}", "Guten Tag"],
  en: ["Dear {name}", "Good day"],
  es: ["Buenos días, {name}", "Buenos días"],
  fr: ["Bonjour {name}", "Bonjour"],
  it: ["Buongiorno {name}", "Buongiorno"],
  nl: ["Beste {name}", "Goedendag"],
};

/** The languages that a template can be in (ISO 639-1). */
export const TEMPLATE_LANGUAGES: readonly string[] = Object.keys(GREETINGS);

/** The tag (BCP 47) by which a language writes its dates: the day before its month. */
export function datesOf(language: string): string {
  return language === "en" ? "en-GB" : language;
}

/** The greeting of somebody in a language, English where there is none for it. It ends without a mark. */
export function greetingIn(language: string, name: string): string {
  const [named, unnamed] = GREETINGS[language] ?? ["Dear {name}", "Good day"];
  return name.trim() === "" ? unnamed : named.replace("{name}", () => name.trim());
}
