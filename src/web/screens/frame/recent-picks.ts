const KEPT = 8;

/** What was picked last of a kind in this browser, the newest first. */
export function recentPicks(kind: string): readonly string[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(`recent ${kind}`) ?? "[]");
    return Array.isArray(stored) ? stored.filter((id) => typeof id === "string") : [];
  } catch {
    return [];
  }
}

/** Remembers that something was picked. */
export function notePick(kind: string, id: string): void {
  const others = recentPicks(kind).filter((other) => other !== id);
  localStorage.setItem(`recent ${kind}`, JSON.stringify([id, ...others].slice(0, KEPT)));
}

/** Choices with those picked last on top, in the order in which they were; the rest stay as they are. */
export function recentFirst<T extends { readonly id: string }>(kind: string, choices: readonly T[]): T[] {
  const recent = recentPicks(kind);
  const place = (id: string) => (recent.includes(id) ? recent.indexOf(id) : KEPT);
  return choices.toSorted((a, b) => place(a.id) - place(b.id));
}
