import type { MemberId } from "../kernel/ids";

/** Somebody who can be named. */
export type Nameable = { readonly id: MemberId; readonly name: string };
/** A stretch of a note that names somebody: `@Tobias Lind`, or `@Tobias` where that is only one. */
export type Mention = { readonly memberId: MemberId; readonly from: number; readonly to: number };

/**
 * Whom a note names, in the order of the text: after an `@` that begins a word the longest name that fits, in full or its
 * first word where only one of `people` has that; without regard to case. What names nobody is text like any other.
 */
export function mentionsIn(text: string, people: readonly Nameable[]): Mention[] {
  const calls = callsOf(people);
  const found: Mention[] = [];
  for (const { index } of text.matchAll(/(?<![\p{L}\p{N}.@])@/gu)) {
    const rest = text.slice(index + 1).toLocaleLowerCase();
    const call = calls.find(({ name }) => rest.startsWith(name) && !/^[\p{L}\p{N}]/u.test(rest.slice(name.length)));
    if (call !== undefined) found.push({ memberId: call.id, from: index, to: index + 1 + call.name.length });
  }
  return found;
}

/** Everybody whom a note names, each once. */
export function mentioned(text: string, people: readonly Nameable[]): MemberId[] {
  return [...new Set(mentionsIn(text, people).map(({ memberId }) => memberId))];
}

function callsOf(people: readonly Nameable[]): { id: MemberId; name: string }[] {
  const full = people.map(({ id, name }) => ({ id, name: name.toLocaleLowerCase() }));
  const first = full.map(({ id, name }) => ({ id, name: name.split(" ")[0] ?? name }));
  const single = first.filter((one) => first.filter(({ name }) => name === one.name).length === 1);
  return [...full, ...single].filter(({ name }) => name !== "").toSorted((a, b) => b.name.length - a.name.length);
}
