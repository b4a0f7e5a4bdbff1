import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Standing } from "../standing/standing";
import type { Mark } from "../turn-line/marks";
import { TEXT_PREFIX } from "./features";

/**
 * What was decided about a conversation, as labels to count: `c:`, `r:` and `o:` with the id of a category, record or
 * owner, `s` for what was settled without an answer, `*` for whatever was decided about at all.
 */
export type Label = string;

export const DECIDED: Label = "*";
export const SETTLED_UNANSWERED: Label = "s";
export const LABEL_PREFIXES = { categorise: "c:", file: "r:", assign: "o:" } as const;

/** What of a docket is a decision to learn from. */
export type Decided = {
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly standing: Pick<Standing, "kind" | "reason">;
  readonly marks: readonly Mark[];
};

/** The labels of a conversation; none where no person has decided about it, or it was thrown away. */
export function labelsOf({ ownerId, categoryIds, recordIds, standing, marks }: Decided): Label[] {
  if (standing.kind === "bin" || standing.kind === "junk") return [];
  const given = [
    ...categoryIds.map((id) => LABEL_PREFIXES.categorise + id),
    ...recordIds.map((id) => LABEL_PREFIXES.file + id),
    ...(ownerId === null ? [] : [LABEL_PREFIXES.assign + ownerId]),
  ];
  const { reason } = standing;
  const isSettled = reason.kind === "settled" && reason.by !== null;
  const wasAnswered = marks.some(([, kind]) => kind === "w");
  if (given.length === 0 && !isSettled) return [];
  return [DECIDED, ...given, ...(isSettled && !wasAnswered ? [SETTLED_UNANSWERED] : [])];
}

/** By how much the count of a label with a feature changes. */
export type CountChange = { readonly feature: string; readonly label: Label; readonly by: number };

/**
 * What changes in the counts when a conversation with these features has other labels than it was counted with. Where
 * something is filed is not counted by the words of the text: there are many records, and words stand in letters to all.
 */
export function countChanges(
  features: readonly string[],
  before: readonly Label[],
  now: readonly Label[],
): CountChange[] {
  const changes = [
    ...before.filter((label) => !now.includes(label)).map((label) => ({ label, by: -1 })),
    ...now.filter((label) => !before.includes(label)).map((label) => ({ label, by: 1 })),
  ];
  return features.flatMap((feature) => {
    const isText = feature.startsWith(TEXT_PREFIX);
    return changes
      .filter(({ label }) => !isText || !label.startsWith(LABEL_PREFIXES.file))
      .map((change) => ({ feature, ...change }));
  });
}
