import { ChartNoAxesColumn, Download, FileInput, Plus } from "lucide-react";
import { Link, useSearchParams } from "react-router";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import type { CareView } from "../../server/categories/category-view.server";
import { Button } from "../../ui/button";
import { SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { useCategoryChange } from "../deciding/use-category-change";
import { useTray } from "../frame/tray-data";
import { CategoryEndDialog } from "./category-end-dialog";
import { CategoryForm } from "./category-form";
import { CategoryLine } from "./category-line";
import { MAINTENANCE_COLUMNS } from "./category-maintenance-row";
import { CategorySteps } from "./category-steps";
import { EmptyCategories } from "./empty-categories";

/** What looks after the categories of a tray: their tree in the order by hand, one of them to change, what was lately done. */
export function CategoryMaintenance({ categories, mayChange, membersMay, steps, uses }: CareView) {
  const say = useSay(categoriesTexts, commonTexts);
  const { tray } = useTray();
  const [params, setParams] = useSearchParams();
  const show = (next: Readonly<Record<string, string>>) => setParams(next, { preventScrollReset: true });
  // Here, and not in the dialog, which goes with the category that it ends.
  const ending = useCategoryChange(() => show({}));
  const edited = categories.find(({ id }) => id === params.get("edit")) ?? null;
  const ended = categories.find(({ id }) => id === params.get("end")) ?? null;
  const under = params.get("new");
  const mayAny = mayChange.own || mayChange.common;
  return (
    <main
      aria-label={say("common.categories")}
      className="mx-2 mt-2.5 flex min-h-0 flex-1 overflow-hidden rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex min-w-0 flex-1 flex-col">
        <div className="flex flex-wrap items-center gap-x-2 gap-y-1 border-b border-rule px-4 py-2">
          <h1 className="mr-auto font-serif text-xl">{say("common.categories")}</h1>
          <Tool to={`/${tray.slug}/matrix`} icon={ChartNoAxesColumn} name={say("categories.matrix")} />
          {mayChange.own && <Tool to="import" icon={FileInput} name={say("categories.import")} />}
          <a href={`/${tray.slug}/categories.csv`} className={TOOL}>
            <Download size={14} aria-hidden /> <span className="max-sm:sr-only">{say("common.export")}</span>
          </a>
          {mayAny && (
            <Button look="filled" onClick={() => show({ new: "" })}>
              <Plus size={15} aria-hidden /> {say("categories.newCategory")}
            </Button>
          )}
        </div>
        <div aria-hidden className={`${MAINTENANCE_COLUMNS} border-b border-rule py-1 text-xs text-soft max-md:hidden`}>
          <span>{say("common.name")}</span>
          <span className="text-center">{say("categories.key")}</span>
          <span>{say("categories.inMenus")}</span>
          <span className="text-end">{say("common.open")}</span>
          <span className="text-end">{say("categories.inAll")}</span>
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto [scrollbar-width:thin]">
          {categories.length === 0 ? (
            <EmptyCategories mayBegin={mayChange.own} />
          ) : (
            <ul>
              {categories.map((category) => (
                <CategoryLine
                  key={category.id}
                  category={category}
                  all={categories}
                  isOpen={category.id === edited?.id}
                  onShow={show}
                />
              ))}
            </ul>
          )}
        </div>
      </div>
      <SidePanel
        label={edited === null && under === null ? say("categories.latelyChanged") : say("categories.category")}
        className={`w-[344px] shrink-0 border-l border-rule bg-ground/60 px-4 py-3 ${edited === null && under === null ? "max-lg:hidden" : "max-lg:fixed max-lg:inset-0 max-lg:z-30 max-lg:overflow-y-auto max-lg:w-auto max-lg:bg-paper"}`}
      >
        {edited !== null || under !== null ? (
          <CategoryForm
            key={edited?.id ?? `new ${under}`}
            category={edited}
            under={under ?? ""}
            all={categories}
            mayChange={mayChange}
            onClose={() => show({})}
          />
        ) : (
          <CategorySteps steps={steps} mayChange={mayAny} membersMay={membersMay} />
        )}
      </SidePanel>
      {ended !== null && uses !== null && (
        <CategoryEndDialog category={ended} uses={uses} all={categories} change={ending} onClose={() => show({})} />
      )}
    </main>
  );
}

const TOOL =
  "flex h-8 items-center gap-1.5 rounded-control px-2 text-soft hover:bg-sunk hover:text-ink focus-visible:text-ink";

function Tool({ to, icon: Icon, name }: { to: string; icon: typeof Plus; name: string }) {
  return (
    <Link to={to} className={TOOL}>
      <Icon size={14} aria-hidden /> <span className="max-sm:sr-only">{name}</span>
    </Link>
  );
}
