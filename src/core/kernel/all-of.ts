/** All of so many things, as people say it: "it", "both", "all 12". */
export function allOf(count: number): string {
  if (count === 1) return "it";
  return count === 2 ? "both" : `all ${count.toLocaleString("en")}`;
}
