import type { CategoryReplacement } from "../categories/category";
import type { JournalEntry } from "../journal/entry";
import type { CategoryId } from "../kernel/ids";

/**
 * The categories that a conversation has, in the order in which they were given: what its entries gave and took, with
 * every category that is no more replaced from its end on. `entries` are in the order of their versions. Never one that
 * was replaced: what is given again by undoing or doing again an old step counts as its successor.
 */
export function givenCategories(
  entries: readonly JournalEntry[],
  replacements: readonly CategoryReplacement[],
): CategoryId[] {
  const inTime = replacements.toSorted((a, b) => a.at - b.at);
  let given: CategoryId[] = [];
  let applied = 0;
  for (const { at, effect } of entries) {
    if (effect.kind !== "categorised" && effect.kind !== "uncategorised") continue;
    for (let next = inTime[applied]; next !== undefined && next.at < at; next = inTime[applied]) {
      given = replacedIn(given, next);
      applied += 1;
    }
    const [id] = inTime.slice(0, applied).reduce(replacedIn, [effect.categoryId]);
    const others = given.filter((one) => one !== id);
    // Given twice it keeps its first place.
    if (id === undefined || (effect.kind === "categorised" && others.length < given.length)) continue;
    given = effect.kind === "categorised" ? [...given, id] : others;
  }
  return inTime.reduce(replacedIn, given);
}

function replacedIn(given: readonly CategoryId[], { categoryId, by }: CategoryReplacement): CategoryId[] {
  return [...new Set(given.flatMap((id) => (id === categoryId ? (by ?? []) : id)))];
}
