import { absentMember, asRule } from "../../core/automatic-answers/automatic-answer";
import { type AnswerProblems, checkAutomaticAnswer } from "../../core/automatic-answers/check-automatic-answer";
import { type AutomaticAnswerId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { NamedKind } from "../../core/rules/gone-names";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused } from "../../storage/base/index";
import { lockCategoriesForShare } from "../../storage/facts/index";
import {
  answersOf,
  countAnswersSent,
  forgetAnswersSent,
  type KeptAnswer,
  removeAnswer,
  saveAnswer,
  stoppedAnswers,
} from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { namedRefusal } from "../rules/edit-rules";
import { REMEMBERED } from "./answer-by-itself";

/** Within which the answers that went are counted. */
const COUNTED = 14 * DAY;

/** An automatic answer with what became of it lately. */
export type AnswerNow = KeptAnswer & {
  /** How many went in the last two weeks. */
  readonly count: number;
  /** The kinds of things of which it names one that is no more; it is stopped where there are any. */
  readonly gone: readonly NamedKind[];
};

/** The automatic answers of a tray, in the order in which they are asked. */
export async function getAnswers(deps: Deps, grant: TrayGrant): Promise<AnswerNow[]> {
  const answers = await answersOf(deps.db, grant.tray.id);
  const [counts, stopped] = await Promise.all([
    countAnswersSent(deps.db, grant.tray.id, later(deps.now(), -COUNTED)),
    stoppedAnswers(deps.db, answers),
  ]);
  return answers.map((answer) => ({
    ...answer,
    count: counts.get(answer.id) ?? 0,
    gone: stopped.get(answer.id) ?? [],
  }));
}

/** An automatic answer as it is edited; without an id it is a new one. */
export type AnswerDraft = Omit<KeptAnswer, "id" | "trayId"> & { readonly id: AutomaticAnswerId | null };

/** Why an automatic answer was not kept. */
export type AnswerRefusal = Refusal | { readonly kind: "answer-problems"; readonly problems: AnswerProblems };

/** Keeps an automatic answer; for those who lead the tray. */
export async function editAnswer(
  deps: Deps,
  grant: TrayGrant,
  draft: AnswerDraft,
): Promise<Result<AutomaticAnswerId, AnswerRefusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<AutomaticAnswerId, AnswerRefusal>> => {
    // A category must not end while an answer comes to ask for it.
    await lockCategoriesForShare(trx);
    const answers = await answersOf(trx, grant.tray.id);
    if (draft.id !== null && !answers.some(({ id }) => id === draft.id))
      return err({ kind: "no-such", what: "automatic-answer" });
    const others = answers.filter(({ id }) => id !== draft.id).map(({ name }) => name);
    const problems = checkAutomaticAnswer(draft, others);
    if (Object.keys(problems).length > 0) return err({ kind: "answer-problems", problems });
    const refusal = await namedRefusal(trx, grant, asRule(draft));
    if (refusal !== null) return err(refusal);
    const id = draft.id ?? trustedId<AutomaticAnswerId>(deps.newId());
    const texts = draft.texts.map((text) => ({
      ...text,
      copiesCover: text.copiesCover && absentMember(draft) !== null,
    }));
    await saveAnswer(trx, { ...draft, texts, name: draft.name.trim(), id, trayId: grant.tray.id }, deps.now());
    return ok(id);
  });
}

/** Takes an automatic answer away, or brings it back; for those who lead the tray. */
export async function dropAnswer(
  deps: Deps,
  grant: TrayGrant,
  id: AutomaticAnswerId,
  drops: boolean,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const found = await removeAnswer(deps.db, grant.tray.id, id, drops ? deps.now() : null);
  return found ? ok(null) : err({ kind: "no-such", what: "automatic-answer" });
}

/** Forgets who was answered so long ago that it says nothing about an answer of today. */
export function forgetAnswered(deps: Deps): Promise<void> {
  return forgetAnswersSent(deps.db, later(deps.now(), -REMEMBERED));
}
