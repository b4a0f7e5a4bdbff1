/** Months (ISO 8601 `YYYY-MM`, the oldest first) with those between them in which nothing was; the newest so many. */
export function everyMonth(
  found: readonly { readonly month: string; readonly came: number; readonly went: number }[],
  most: number,
): { readonly month: string; readonly came: number; readonly went: number }[] {
  const [first] = found;
  const last = found.at(-1);
  if (first === undefined || last === undefined) return [];
  const byMonth = new Map(found.map((one) => [one.month, one]));
  const months = [];
  for (let at = numberOf(first.month); at <= numberOf(last.month); at += 1) {
    const month = `${String(Math.floor(at / 12)).padStart(4, "0")}-${String((at % 12) + 1).padStart(2, "0")}`;
    months.push(byMonth.get(month) ?? { month, came: 0, went: 0 });
  }
  return months.slice(-most);
}

function numberOf(month: string): number {
  const [year = "0", of = "1"] = month.split("-");
  return Number(year) * 12 + Number(of) - 1;
}
