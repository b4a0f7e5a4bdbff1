import { X } from "lucide-react";
import type { Draft } from "../../../core/writing/draft";
import { templatesTexts } from "../../../texts/en/templates";
import { CategoryTab } from "../../ui/category-tab";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type GivenCategoriesProps = {
  readonly draft: Pick<Draft, "categories">;
  readonly change: (part: Partial<Draft>) => void;
};

/** The categories that the conversation gets with a message, each of which can be taken out. */
export function GivenCategories({ draft: { categories = [] }, change }: GivenCategoriesProps) {
  const say = useSay(templatesTexts);
  const known = useTray().categories.filter(({ id }) => categories.includes(id));
  if (known.length === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-1.5 text-sm">
      <span className="text-soft">{say("templates.categoriesWithIt")}</span>
      {known.map(({ id, code, name, ink }) => (
        <span key={id} className="flex items-center">
          <CategoryTab code={code} name={name} ink={ink} />
          <button
            type="button"
            aria-label={say("templates.withoutCategory", { name })}
            onClick={() => change({ categories: categories.filter((one) => one !== id) })}
            className="grid size-6 place-items-center text-soft hover:text-act"
          >
            <X size={13} aria-hidden />
          </button>
        </span>
      ))}
    </p>
  );
}
