/** Where public holidays are known for: a country (ISO 3166-1) or a part of one, `DE` or `DE-BY`, and its name. */
export type HolidayPlace = { readonly code: string; readonly name: string };

// The tables of the whole world are large: read when somebody asks.
const tables = async () => (await import("date-holidays")).default;

/** The countries and their parts whose public holidays are known, by name; a part stands after its country. */
export async function holidayPlaces(): Promise<HolidayPlace[]> {
  const known = new (await tables())();
  return Object.entries(known.getCountries("en"))
    .toSorted(([, a], [, b]) => a.localeCompare(b, "en"))
    .flatMap(([country, name]) => {
      const parts = Object.entries(known.getStates(country, "en") ?? {}).toSorted(([, a], [, b]) =>
        a.localeCompare(b, "en"),
      );
      return [
        { code: country, name },
        ...parts.map(([part, itsName]) => ({ code: `${country}-${part}`, name: `${name}: ${itsName}` })),
      ];
    });
}

/** The days (`YYYY-MM-DD`) on which offices of a place are closed in some years, in order; null for a place that is not known. */
export async function publicHolidays(code: string, years: readonly number[]): Promise<string[] | null> {
  const Tables = await tables();
  const [country = "", ...part] = code.split("-");
  if (!Object.hasOwn(new Tables().getCountries(), country)) return null;
  const place = part.length === 0 ? new Tables(country) : new Tables(country, part.join("-"));
  if (part.length > 0 && !Object.hasOwn(new Tables().getStates(country) ?? {}, part.join("-"))) return null;
  const days = years.flatMap((year) => place.getHolidays(year).filter(({ type }) => type === "public"));
  return [
    ...new Set(days.flatMap(({ date, start, end }) => daysOf(date, (end.getTime() - start.getTime()) / DAY_MS))),
  ].toSorted();
}

const DAY_MS = 86_400_000;

// The date is that of the place, whatever the zone of this machine; a feast may last for several days.
function daysOf(date: string, length: number): string[] {
  const first = Date.parse(`${date.slice(0, 10)}T00:00:00Z`);
  return Array.from({ length: Math.max(1, Math.round(length)) }, (_, at) =>
    new Date(first + at * DAY_MS).toISOString().slice(0, 10),
  );
}
