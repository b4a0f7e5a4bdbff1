import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Standing } from "../standing/standing";
import type { Mark } from "../turn-line/marks";
import { EVERYTHING, ofUnfiled, readFeature } from "./features";

/**
 * What was decided about a conversation, as labels to count: `c:`, `r:` and `o:` with the id of a category, record or
 * owner, `r:-` and `o:-` once it is over without one, `s` for what was settled without an answer, `*` for whatever was
 * decided about at all.
 */
export type Label = string;

export const DECIDED: Label = "*";
export const SETTLED_UNANSWERED: Label = "s";
export const LABEL_PREFIXES = { categorise: "c:", file: "r:", assign: "o:" } as const;
/** It was left without a record, or an owner, on purpose. */
export const UNFILED: Label = `${LABEL_PREFIXES.file}-`;
export const UNOWNED: Label = `${LABEL_PREFIXES.assign}-`;

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
  return [
    DECIDED,
    ...given,
    ...(isSettled && recordIds.length === 0 ? [UNFILED] : []),
    ...(isSettled && ownerId === null ? [UNOWNED] : []),
    ...(isSettled && !wasAnswered ? [SETTLED_UNANSWERED] : []),
  ];
}

export const isOfOwner = (label: Label) => label.startsWith(LABEL_PREFIXES.assign);

/** By how much the count of a label with a feature changes. */
export type CountChange = { readonly feature: string; readonly label: Label; readonly by: number };

/**
 * What changes in the counts when a conversation with these features has other labels than it was counted with. Its
 * categories and records count as features as well. Owners are counted by themselves, as they go out of date, with what
 * says who answers for something: everything, the person, a category, the same where there is no record, a record.
 */
export function countChanges(
  features: readonly string[],
  before: readonly Label[],
  now: readonly Label[],
): { readonly counts: CountChange[]; readonly owners: CountChange[] } {
  const changes = new Map<string, { feature: string; label: Label; by: number }>();
  for (const [labels, by] of [
    [before, -1],
    [now, 1],
  ] as const)
    for (const [feature, label] of counted(features, labels)) {
      const key = `${feature}\n${label}`;
      const change = changes.get(key) ?? { feature, label, by: 0 };
      change.by += by;
      changes.set(key, change);
    }
  const all = [...changes.values()].filter(({ by }) => by !== 0);
  return { counts: all.filter(({ label }) => !isOfOwner(label)), owners: all.filter(({ label }) => isOfOwner(label)) };
}

function counted(features: readonly string[], labels: readonly Label[]): (readonly [feature: string, label: Label])[] {
  const given = labels.filter((label) => isGiven(label) && label !== UNFILED);
  const isUnfiled = !given.some((label) => label.startsWith(LABEL_PREFIXES.file));
  const owners = labels.filter(isOfOwner);
  const others = labels.filter((label) => !isOfOwner(label));
  const answering = [...features, ...given].filter(saysWhoAnswers);
  const among = isUnfiled ? withUnfiled(answering) : answering;
  return [
    ...[...features, ...given].flatMap((feature) => others.map((label) => [feature, label] as const)),
    ...among.flatMap((feature) => owners.map((label) => [feature, label] as const)),
  ];
}

/** Features, and each category among them once more as that of what is on no record. */
function withUnfiled(features: readonly string[]): string[] {
  return features.flatMap((feature) => {
    const { kind, text } = readFeature(feature);
    return kind === "category" ? [feature, ofUnfiled(text)] : [feature];
  });
}

/** With what is asked who owns something: everything, whoever wrote it, and the categories and records that it is likely given. */
export function askedOfOwners(features: readonly string[], likely: readonly Label[]): string[] {
  const person = features.filter((feature) => readFeature(feature).kind === "person");
  return [EVERYTHING, ...person, ...withUnfiled(likely)];
}

const isGiven = (label: Label) => label.startsWith(LABEL_PREFIXES.categorise) || label.startsWith(LABEL_PREFIXES.file);

function saysWhoAnswers(feature: string): boolean {
  const { kind } = readFeature(feature);
  return kind !== "word" && kind !== "domain" && kind !== "list";
}
