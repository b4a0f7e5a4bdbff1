import { data } from "react-router";
import { err, ok, type Result } from "../../../core/kernel/result";
import {
  beginWithSet,
  bringBackCategory,
  type CategoryRefusal,
  changeCategory,
  createCategory,
  type Deps,
  endCategory,
  letMembersChange,
  placeCategory,
  retireCategory,
  type TrayGrant,
} from "../../../operations/index.server";
import type { CategoryOutcome } from "../../screens/frame/category-outcome";
import { refusalSaid } from "../base/refusal.server";
import { saidByField, speak } from "../base/say.server";
import type { PostedChange } from "./category-form.server";

type Done = Pick<Extract<CategoryOutcome, { ok: true }>, "said" | "stepId" | "created">;

/** Carries a posted change of categories out, and says what became of it. */
export async function carryOutChange(deps: Deps, grant: TrayGrant, posted: PostedChange) {
  const done = await doneBy(deps, grant, posted);
  if (done.ok) return data<CategoryOutcome>({ ok: true, ...done.value });
  return refused(done.error);
}

/** A refusal as its screen shows it. */
function refused(refusal: CategoryRefusal) {
  const nothing = { ok: false, problems: {}, problem: null, uses: null } as const;
  if (refusal.kind === "problems") {
    return data<CategoryOutcome>({ ...nothing, problems: saidByField(refusal.problems) }, { status: 400 });
  }
  if (refusal.kind === "uses-changed") {
    const problem = speak("categories.whatUsesItChangedMeanwhile");
    return data<CategoryOutcome>({ ...nothing, problem, uses: refusal.uses }, { status: 409 });
  }
  return data<CategoryOutcome>({ ...nothing, problem: refusalSaid(refusal) }, { status: 409 });
}

async function doneBy(deps: Deps, grant: TrayGrant, posted: PostedChange): Promise<Result<Done, CategoryRefusal>> {
  switch (posted.do) {
    case "create": {
      const made = await createCategory(deps, grant, posted.draft);
      if (!made.ok) return made;
      return ok({
        said: speak("categories.created", { name: posted.draft.name.trim() }),
        stepId: made.value.stepId,
        created: made.value.value,
      });
    }
    case "change":
      return saying(speak("categories.saved"), changeCategory(deps, grant, posted.id, posted.draft));
    case "place":
      return saying(speak("categories.moved"), placeCategory(deps, grant, posted.id, posted));
    case "retire":
      return saying(speak("categories.retiredNoLongerOfferedStill"), retireCategory(deps, grant, posted.id));
    case "bring-back":
      return saying(speak("categories.reactivated"), bringBackCategory(deps, grant, posted.id));
    case "end":
      return ending(deps, grant, posted);
    case "right": {
      const set = await letMembersChange(deps, grant, posted.members);
      const said = posted.members
        ? speak("categories.allMembersMayChangeCategories")
        : speak("categories.onlyLeadsMayChangeCategories");
      return set.ok ? ok({ said, stepId: null, created: null }) : set;
    }
    case "begin":
      return beginning(deps, grant, posted.set);
  }
}

async function ending(
  deps: Deps,
  grant: TrayGrant,
  posted: Extract<PostedChange, { do: "end" }>,
): Promise<Result<Done, CategoryRefusal>> {
  const ended = await endCategory(deps, grant, posted.id, posted);
  if (!ended.ok) return ended;
  const { conversations } = ended.value.value;
  const words = speak("common.conversations", { count: conversations });
  const said =
    posted.by === null
      ? speak("categories.deletedAndRemovedFrom", { words })
      : speak("categories.mergedWith", { words });
  return ok({ said, stepId: ended.value.stepId, created: null });
}

async function beginning(deps: Deps, grant: TrayGrant, set: string): Promise<Result<Done, CategoryRefusal>> {
  const begun = await beginWithSet(deps, grant, set);
  if (!begun.ok) return begun;
  const added = begun.value.value.filter(({ kind }) => kind === "new").length;
  const said = added === 0 ? speak("categories.allOfTheSetIs") : speak("categories.categoriesAdded", { added });
  return ok({ said, stepId: begun.value.stepId, created: null });
}

async function saying<E extends CategoryRefusal>(
  said: string,
  change: Promise<Result<{ readonly stepId: Done["stepId"] }, E>>,
): Promise<Result<Done, E>> {
  const done = await change;
  return done.ok ? ok({ said, stepId: done.value.stepId, created: null }) : err(done.error);
}
