import type { CareView } from "../../server/categories/category-view.server";
import { useDecisions } from "../deciding/decisions";
import { useCategoryChange } from "../deciding/use-category-change";
import { useTray } from "../frame/tray-data";

type CategoryStepsProps = Pick<CareView, "steps" | "membersMay"> & { readonly mayChange: boolean };

/** What was lately changed about categories, each to take back, and who may change them. */
export function CategorySteps({ steps, membersMay, mayChange }: CategoryStepsProps) {
  const { member, members, mayLead } = useTray();
  const { undoCategories } = useDecisions();
  const { post } = useCategoryChange();
  const nameOf = (id: string) =>
    id === member.id ? "You" : (members.find((one) => one.id === id)?.name ?? "A colleague");
  return (
    <>
      <h2 className="text-sm font-semibold">Lately changed</h2>
      {steps.length === 0 && <p className="py-1.5 text-sm text-soft">Nothing yet.</p>}
      <ul className="mt-1">
        {steps.map(({ id, by, words, when, isUndone }) => (
          <li key={id} className="flex gap-2 border-b border-hair py-1 text-sm">
            <span className="min-w-0 flex-1">
              <span className={isUndone ? "text-soft line-through" : ""}>
                {nameOf(by)} {words}
              </span>
              <span className="block text-xs text-soft">{isUndone ? `${when}, taken back` : when}</span>
            </span>
            {mayChange && !isUndone && (
              <button
                type="button"
                aria-label={`Undo: ${nameOf(by)} ${words}`}
                onClick={() => undoCategories(id)}
                className="self-start text-act underline-offset-2 hover:underline"
              >
                undo
              </button>
            )}
          </li>
        ))}
      </ul>
      <h2 className="mt-5 text-sm font-semibold">Who may change this tray’s</h2>
      {mayLead ? (
        <label className="mt-1 flex items-start gap-2 text-sm">
          <input
            type="checkbox"
            checked={membersMay}
            onChange={(event) => post({ do: "right", members: String(event.target.checked) })}
            className="mt-0.5 size-[14px] accent-act"
          />
          All members, and not only those who lead it
        </label>
      ) : (
        <p className="mt-1 text-sm text-soft">{membersMay ? "All its members." : "Those who lead it."}</p>
      )}
      <p className="mt-2 text-sm text-soft">
        Those common to all trays are changed by whoever leads all of them. The order is by hand: drag a line, or move
        it from its menu.
      </p>
    </>
  );
}
