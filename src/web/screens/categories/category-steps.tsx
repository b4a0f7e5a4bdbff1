import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import type { CareView } from "../../server/categories/category-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { useCategoryChange } from "../deciding/use-category-change";
import { useTray } from "../frame/tray-data";

type CategoryStepsProps = Pick<CareView, "steps" | "membersMay"> & { readonly mayChange: boolean };

/** What was lately changed about categories, each to take back, and who may change them. */
export function CategorySteps({ steps, membersMay, mayChange }: CategoryStepsProps) {
  const say = useSay(categoriesTexts, commonTexts);
  const { member, members, mayLead } = useTray();
  const { undoCategories } = useDecisions();
  const { post } = useCategoryChange();
  const nameOf = (id: string) =>
    id === member.id ? say("common.you") : (members.find((one) => one.id === id)?.name ?? say("common.aColleague"));
  return (
    <>
      <h2 className="text-sm font-semibold">{say("categories.latelyChanged")}</h2>
      {steps.length === 0 && <p className="py-1.5 text-sm text-soft">{say("categories.nothingYet")}</p>}
      <ul className="mt-1">
        {steps.map(({ id, by, words, when, isUndone }) => (
          <li key={id} className="flex gap-2 border-b border-hair py-1 text-sm">
            <span className="min-w-0 flex-1">
              <span className={isUndone ? "text-soft line-through" : ""}>
                {nameOf(by)} {words}
              </span>
              <span className="block text-xs text-soft">{isUndone ? say("categories.takenBack", { when }) : when}</span>
            </span>
            {mayChange && !isUndone && (
              <button
                type="button"
                aria-label={say("categories.undo", { name: nameOf(by), words })}
                onClick={() => undoCategories(id)}
                className="self-start text-act underline-offset-2 hover:underline"
              >
                {say("common.undoInside")}
              </button>
            )}
          </li>
        ))}
      </ul>
      <h2 className="mt-5 text-sm font-semibold">{say("categories.whoMayChangeThisTrays")}</h2>
      {mayLead ? (
        <label className="mt-1 flex items-start gap-2 text-sm">
          <input
            type="checkbox"
            checked={membersMay}
            onChange={(event) => post({ do: "right", members: String(event.target.checked) })}
            className="mt-0.5 size-[14px] accent-act"
          />
          {say("categories.allMembersAndNotOnly")}
        </label>
      ) : (
        <p className="mt-1 text-sm text-soft">
          {membersMay ? say("categories.allItsMembers") : say("categories.thoseWhoLeadIt")}
        </p>
      )}
      <p className="mt-2 text-sm text-soft">{say("categories.thoseCommonToAllTrays")}</p>
    </>
  );
}
