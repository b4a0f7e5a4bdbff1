import { canBeUndone } from "../../core/journal/aspect";
import { effectInWords } from "../../core/journal/effect-in-words";
import type { EffectKind } from "../../core/journal/entry";
import type { TrayGrant } from "../../storage/access/index";
import { type JournalFilter, type JournalStep, trayJournal } from "../../storage/conversation/index";
import { journalTexts } from "../../texts/en/journal";
import { eachOnce, saidOf, type Wording } from "../../texts/said";
import type { Deps } from "../base/deps";
import { namesFor } from "../deciding/undo";

const said = saidOf(journalTexts);

/** What a journal can be filtered by: kinds of effects that people think of as one. */
export const JOURNAL_KINDS = {
  settled: ["settled"],
  assigned: ["assigned", "kept"],
  filed: ["filed", "unfiled", "particulars-set", "part-filed", "part-unfiled"],
  categories: ["categorised", "uncategorised"],
  waiting: ["expected", "withdrawn", "reminders-begun"],
  resting: ["rested", "rest-ended", "held", "let-in"],
  "follow-ups": ["follow-up-set", "follow-up-done", "follow-up-cleared"],
  away: ["binned", "junked", "restored"],
  joined: ["joined", "split-off"],
  together: [
    "noted",
    "note-edited",
    "followed",
    "unfollowed",
    "told",
    "report-asked",
    "draft-handed",
    "draft-returned",
    "draft-given-up",
  ],
} as const satisfies Readonly<Record<string, readonly EffectKind[]>>;
export type JournalKind = keyof typeof JOURNAL_KINDS;

export type JournalPage = {
  readonly steps: readonly (JournalStep & { readonly words: Wording; readonly mayUndo: boolean })[];
  readonly hasMore: boolean;
};

const PAGE = 60;

/** The newest steps of a tray's journal, each as the predicate of a sentence about whoever did it. */
export async function getJournal(
  deps: Deps,
  grant: TrayGrant,
  { kind, ...filter }: Omit<JournalFilter, "kinds"> & { readonly kind: JournalKind | null },
): Promise<JournalPage> {
  const kinds = kind === null ? null : JOURNAL_KINDS[kind];
  const found = await trayJournal(deps.db, grant, { ...filter, kinds }, PAGE + 1);
  const steps = found.slice(0, PAGE);
  const names = await namesFor(
    deps,
    grant,
    steps.flatMap(({ effects }) => effects.map((effect) => ({ entry: { effect } }))),
  );
  return {
    hasMore: found.length > PAGE,
    steps: steps.map((step) => {
      const all = eachOnce(step.effects.map((effect) => effectInWords(effect, names, step.by)));
      const did: Wording = { all, by: "and" };
      const isDecision = step.effects.some((effect) =>
        canBeUndone({ by: step.by, effect, ...(step.rule === null ? {} : { rule: step.rule }) }),
      );
      return {
        ...step,
        words: step.isUndo ? said("journal.tookBack", { did }) : step.isRedo ? said("journal.didAgain", { did }) : did,
        mayUndo: isDecision && !step.isUndo && !step.isUndone && !step.wentWithMail && grant.role !== "reader",
      };
    }),
  };
}
