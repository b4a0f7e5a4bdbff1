import type { Said } from "../../../texts/said";
import { languageOf, type PlainKey, sayIn } from "../../../texts/say";

type Matches = readonly ({ readonly id: string; readonly loaderData?: unknown } | undefined)[];
type Title = [{ readonly title: string }];

const isOfRoot = (data: unknown): data is { readonly language: { readonly locale: string } } =>
  typeof data === "object" && data !== null && "language" in data;

/** The title of a page, in the language of whoever looks; a browser shows it before the page is drawn. */
export function pageTitle<Catalogue extends object>(
  matches: Matches,
  _catalogue: Catalogue,
  key: PlainKey<Catalogue>,
): Title {
  return titledAs(matches, { key, values: {} });
}

/** The same of what the core calls something. */
export function titledAs(matches: Matches, name: Said): Title {
  const data = matches.find((match) => match?.id === "root")?.loaderData;
  return titled(sayIn(isOfRoot(data) ? data.language.locale : languageOf([]).locale)(name));
}

/** A page that is called as what it shows. */
export function titled(title: string): Title {
  return [{ title: `${title} · Common Tray` }];
}
