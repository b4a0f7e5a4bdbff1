import { data } from "react-router";
import { type CategoryId, readId } from "../../../core/kernel/ids";
import { getCategoriesInCare, preferencesOf, usesBeforeEnding } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { CategoryMaintenance } from "../../screens/categories/category-maintenance";
import type { CategoryOutcome } from "../../screens/frame/category-outcome";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/row-view.server";
import { carryOutChange } from "../../server/categories/category-actions.server";
import { readCategoryChange } from "../../server/categories/category-form.server";
import { careView } from "../../server/categories/category-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/categories";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, commonTexts, "common.categories");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const ending = readId<CategoryId>(new URL(request.url).searchParams.get("end") ?? "");
  const [care, preferences] = await Promise.all([getCategoriesInCare(deps, grant), preferencesOf(deps, grant)]);
  const isThere = ending.ok && care.categories.some(({ id }) => id === ending.value);
  const uses = isThere ? await usesBeforeEnding(deps, ending.value) : null;
  return careView(care, preferences, uses, readingOf(context.get(memberContext), deps.now()));
}

/** Changes categories; the outcome is shown beside the fields or in a notice with Undo. */
export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const posted = readCategoryChange(await readForm(request), grant.tray.id);
  if (!posted.ok) {
    return data<CategoryOutcome>({ ok: false, problems: {}, problem: posted.error, uses: null }, { status: 400 });
  }
  return carryOutChange(deps, grant, posted.value);
}

export default function Categories({ loaderData }: Route.ComponentProps) {
  return <CategoryMaintenance {...loaderData} />;
}
