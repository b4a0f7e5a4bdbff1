import { categoriesTexts } from "../../texts/en/categories";
import { commonTexts } from "../../texts/en/common";
import { type Said, saidOf } from "../../texts/said";
import type { CategoryId } from "../kernel/ids";
import { INKS } from "../kernel/ink";
import type { Category, CategoryDraft } from "./category";
import { withAllUnder } from "./category-tree";

const said = saidOf(categoriesTexts, commonTexts);

const MAX_NAME = 60;
const MAX_DESCRIPTION = 500;
const CODE = /^[A-Z]{2,3}$/;
const KEY = /^[a-z0-9]$/;

/** What is wrong with a category, in words for beside each field; none where it may be so. */
export type CategoryProblems = { readonly [Field in keyof CategoryDraft]?: Said };

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
    ink: INKS.includes(draft.ink) ? undefined : said("categories.chooseOneOfTheTwelve"),
    description:
      draft.description.length > MAX_DESCRIPTION
        ? said("common.atMostCharacters", { most: MAX_DESCRIPTION })
        : undefined,
  };
  return Object.fromEntries(Object.entries(problems).filter(([, problem]) => problem !== undefined));
}

function nameProblem({ name, parentId }: CategoryDraft, others: readonly Category[]): Said | undefined {
  const trimmed = name.trim();
  if (trimmed === "") return said("categories.itNeedsAName");
  if (trimmed.length > MAX_NAME)
    return said("categories.atMostCharactersPleaseThis", { most: MAX_NAME, count: trimmed.length });
  const same = others.find(
    (other) => other.parentId === parentId && other.name.toLowerCase() === trimmed.toLowerCase(),
  );
  if (same === undefined) return undefined;
  return same.retired
    ? said("categories.isThereAlreadyRetiredBring", { name: same.name })
    : said("categories.isThereAlready", { name: same.name });
}

function codeProblem(code: string, others: readonly Category[]): Said | undefined {
  if (!CODE.test(code)) return said("categories.twoOrThreeLettersSuch");
  const taken = others.find((other) => other.code === code);
  return taken === undefined ? undefined : said("categories.hasThisCode", { name: taken.name });
}

function keyProblem(key: string | null, others: readonly Category[]): Said | undefined {
  if (key === null) return undefined;
  if (!KEY.test(key)) return said("categories.oneLetterOrDigitOr");
  const taken = others.find((other) => other.key === key && !other.retired);
  return taken === undefined ? undefined : said("categories.hasThisKey", { name: taken.name });
}

function parentProblem(
  { parentId, trayId }: CategoryDraft,
  id: CategoryId | null,
  all: readonly Category[],
): Said | undefined {
  if (parentId === null) return undefined;
  const parent = all.find((one) => one.id === parentId);
  if (parent === undefined) return said("categories.thatCategoryIsNoLonger");
  if (parent.trayId !== null && parent.trayId !== trayId) return said("categories.oneOfAllTraysCannot");
  if (id !== null && withAllUnder(all, id).has(parentId)) return said("categories.itCannotStandUnderItself");
  return undefined;
}
