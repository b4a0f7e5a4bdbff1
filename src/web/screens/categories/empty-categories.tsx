import { STARTING_SETS } from "../../../core/categories/starting-sets";
import { Button } from "../../ui/button";
import { useCategoryChange } from "../deciding/use-category-change";

/** What stands where there is no category yet: sets to begin with. */
export function EmptyCategories({ mayBegin }: { mayBegin: boolean }) {
  const { post, isBusy } = useCategoryChange();
  if (!mayBegin)
    return <p className="px-4 py-6 text-soft">There are no categories yet; those who lead the tray make them.</p>;
  return (
    <div className="px-4 py-5">
      <p className="max-w-[62ch] text-soft">
        Categories are the words that the whole team sorts by; a conversation can have several. Begin with one of these
        sets, or with one of your own.
      </p>
      <ul className="mt-3 max-w-2xl">
        {STARTING_SETS.map(({ id, name, categories }) => (
          <li key={id} className="flex items-center gap-4 border-b border-hair py-2">
            <span className="min-w-0 flex-1">
              <span className="block font-semibold">{name}</span>
              <span className="block text-sm text-soft">{categories.map((one) => one.name).join(", ")}</span>
            </span>
            <Button disabled={isBusy} onClick={() => post({ do: "begin", set: id })}>
              Begin with these
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
