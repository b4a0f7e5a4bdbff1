import type { CategoryId } from "../kernel/ids";
import { INKS } from "../kernel/ink";
import type { Category, CategoryDraft } from "./category";
import { withAllUnder } from "./category-tree";

const MAX_NAME = 60;
const MAX_DESCRIPTION = 500;
const CODE = /^[A-Z]{2,3}$/;
const KEY = /^[a-z0-9]$/;

/** What is wrong with a category, in words for beside each field; none where it may be so. */
export type CategoryProblems = { readonly [Field in keyof CategoryDraft]?: string };

/**
 * Whether a category may be as somebody filled it in. `all` are the categories that are seen where it is seen; `id` is the
 * one that is changed, null for a new one.
 */
export function checkCategory(draft: CategoryDraft, id: CategoryId | null, all: readonly Category[]): CategoryProblems {
  const others = all.filter((one) => one.id !== id);
  const problems = {
    name: nameProblem(draft, others),
    code: codeProblem(draft.code, others),
    key: keyProblem(draft.key, others),
    parentId: parentProblem(draft, id, all),
    ink: INKS.includes(draft.ink) ? undefined : "Choose one of the twelve inks.",
    description:
      draft.description.length > MAX_DESCRIPTION ? `At most ${MAX_DESCRIPTION} characters, please.` : undefined,
  };
  return Object.fromEntries(Object.entries(problems).filter(([, problem]) => problem !== undefined));
}

function nameProblem({ name, parentId }: CategoryDraft, others: readonly Category[]): string | undefined {
  const trimmed = name.trim();
  if (trimmed === "") return "It needs a name.";
  if (trimmed.length > MAX_NAME) return `At most ${MAX_NAME} characters, please; this has ${trimmed.length}.`;
  const same = others.find(
    (other) => other.parentId === parentId && other.name.toLowerCase() === trimmed.toLowerCase(),
  );
  if (same === undefined) return undefined;
  return same.retired
    ? `“${same.name}” is there already, retired; bring it back, or choose another name.`
    : `“${same.name}” is there already.`;
}

function codeProblem(code: string, others: readonly Category[]): string | undefined {
  if (!CODE.test(code)) return "Two or three letters, such as TU.";
  const taken = others.find((other) => other.code === code);
  return taken === undefined ? undefined : `“${taken.name}” has this code.`;
}

function keyProblem(key: string | null, others: readonly Category[]): string | undefined {
  if (key === null) return undefined;
  if (!KEY.test(key)) return "One letter or digit, or nothing.";
  const taken = others.find((other) => other.key === key && !other.retired);
  return taken === undefined ? undefined : `“${taken.name}” has this key.`;
}

function parentProblem(
  { parentId, trayId }: CategoryDraft,
  id: CategoryId | null,
  all: readonly Category[],
): string | undefined {
  if (parentId === null) return undefined;
  const parent = all.find((one) => one.id === parentId);
  if (parent === undefined) return "That category is no longer there.";
  if (parent.trayId !== null && parent.trayId !== trayId) return "One of all trays cannot stand under one of a tray.";
  if (id !== null && withAllUnder(all, id).has(parentId)) return "It cannot stand under itself.";
  return undefined;
}
