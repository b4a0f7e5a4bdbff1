import { data } from "react-router";
import { type CategoryId, readId } from "../../../core/kernel/ids";
import { FLOW } from "../../../core/standing/standing";
import { getCategory, moreOfList } from "../../../operations/index.server";
import { categoriesTexts } from "../../../texts/en/categories";
import { CategoryScreen } from "../../screens/categories/category-screen";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { categoryView } from "../../server/categories/category-view.server";
import { pageTitle, titled } from "../../ui/texts/page-title";
import type { Route } from "./+types/category";

const SHOWN = 6;
const NEWEST = { order: "date", reversed: false, grouping: null } as const;

export function meta({ loaderData, matches }: Route.MetaArgs) {
  const name = loaderData?.category.name;
  return name === undefined ? pageTitle(matches, categoriesTexts, "categories.category") : titled(name);
}

export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const id = readId<CategoryId>(params.category);
  const page = id.ok ? await getCategory(deps, grant, id.value) : null;
  if (page === null) throw data(speak("server.noSuchCategory"), { status: 404 });
  const request = { filter: { category: [page.category.id] }, view: NEWEST };
  const first = { lane: "", after: null, limit: SHOWN };
  const lists = await Promise.all(
    FLOW.map(async (scope) => ({ scope, rows: await moreOfList(deps, grant, member, { scope, ...request }, first) })),
  );
  return categoryView(page, lists, readingOf(member, deps.now()));
}

export default function Category({ loaderData }: Route.ComponentProps) {
  return <CategoryScreen {...loaderData} />;
}
