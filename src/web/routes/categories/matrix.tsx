import { Link } from "react-router";
import { categoryMatrix } from "../../../operations/index.server";
import { categoriesTexts } from "../../../texts/en/categories";
import { type Against, isAgainst, MatrixTable } from "../../screens/categories/matrix-table";
import { depsContext, grantContext } from "../../server/base/context.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/matrix";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, categoriesTexts, "categories.titleCategoriesInAMatrix");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams.get("against") ?? "";
  const against: Against = isAgainst(asked) ? asked : "owner";
  return { against, cells: await categoryMatrix(context.get(depsContext), context.get(grantContext), against) };
}

const WAYS = [
  ["owner", "categories.ownerInside"],
  ["standing", "categories.standingInside"],
] as const;

/** What is open, by category against owner or standing; every number opens its list. */
export default function Matrix({ loaderData: { against, cells } }: Route.ComponentProps) {
  const say = useSay(categoriesTexts);
  return (
    <main
      aria-label={say("categories.matrixOfCategories")}
      className="mx-2 mt-2.5 flex min-h-0 flex-1 flex-col rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule px-4 py-2">
        <h1 className="font-serif text-xl">{say("categories.whatIsOpenByCategory")}</h1>
        <nav aria-label={say("categories.against")} className="flex items-baseline gap-1 text-sm">
          <span className="text-soft">{say("categories.againstInside")}</span>
          {WAYS.map(([way, name]) => (
            <Link
              key={way}
              to={`?against=${way}`}
              preventScrollReset
              aria-current={way === against ? "page" : undefined}
              className={`rounded-control px-1.5 py-0.5 ${way === against ? "bg-act-soft font-semibold text-act" : "text-soft hover:text-ink"}`}
            >
              {say(name)}
            </Link>
          ))}
        </nav>
      </div>
      <MatrixTable against={against} cells={cells} />
    </main>
  );
}
