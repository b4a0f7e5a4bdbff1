import type { FormProblems } from "./use-form-action";

/** What is wrong with one part of a form, by the places within it; empty for the part as a whole. */
export function problemsWithin(problems: FormProblems, part: string): FormProblems {
  const within = Object.entries(problems).flatMap(([name, problem]) => {
    if (name === part) return [["", problem] as const];
    return name.startsWith(`${part}.`) ? [[name.slice(part.length + 1), problem] as const] : [];
  });
  return Object.fromEntries(within);
}
