import { STARTING_SETS } from "../../../core/categories/starting-sets";
import { categoriesTexts } from "../../../texts/en/categories";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useCategoryChange } from "../deciding/use-category-change";

/** What stands where there is no category yet: sets to begin with. */
export function EmptyCategories({ mayBegin }: { mayBegin: boolean }) {
  const say = useSay(categoriesTexts);
  const { post, isBusy } = useCategoryChange();
  if (!mayBegin) return <p className="px-4 py-6 text-soft">{say("categories.thereAreNoCategoriesYet")}</p>;
  return (
    <div className="px-4 py-5">
      <p className="max-w-[62ch] text-soft">{say("categories.categoriesAreTheWordsThat")}</p>
      <ul className="mt-3 max-w-2xl">
        {STARTING_SETS.map(({ id, name, categories }) => (
          <li key={id} className="flex items-center gap-4 border-b border-hair py-2">
            <span className="min-w-0 flex-1">
              <span className="block font-semibold">{say(name)}</span>
              <span className="block text-sm text-soft">
                {say({ all: categories.map((one) => one.name), by: "comma" })}
              </span>
            </span>
            <Button disabled={isBusy} onClick={() => post({ do: "begin", set: id })}>
              {say("categories.beginWithThese")}
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
