import { domainOf, type EmailAddress } from "../kernel/email-address";
import { foldedWords } from "../kernel/folded-words";
import type { CategoryId, RecordId, TemplateId } from "../kernel/ids";

/** What is known of a conversation that a template could be used in. */
export type Answered = {
  readonly person: EmailAddress | null;
  readonly subject: string;
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
};

/** A conversation in which a template was used. */
export type PastUse = Answered & { readonly templateId: TemplateId };

/** A template that fits, and how sure that is, from 0 to 1. */
export type ProposedTemplate = { readonly templateId: TemplateId; readonly share: number };

// One use more than there were, of anything, so that what was never seen is unlikely and not impossible.
const UNSEEN = 0.5;
const SUREST = 0.5;

/**
 * The templates that were used for such mail, the likeliest first, at most so many: by who wrote, their domain, the
 * conversation's categories and records, and the words of its subject, each taken for itself (naive Bayes, Maron 1961).
 * None where nothing of the conversation was seen before, or none is likelier than all others together.
 */
export function proposeTemplates(uses: readonly PastUse[], asked: Answered, most: number): ProposedTemplate[] {
  const counts = new Map<TemplateId, { uses: number; readonly with: Map<string, number> }>();
  const seen = new Set<string>();
  for (const { templateId, ...use } of uses) {
    const count = counts.get(templateId) ?? { uses: 0, with: new Map<string, number>() };
    counts.set(templateId, count);
    count.uses += 1;
    for (const feature of featuresOf(use)) {
      seen.add(feature);
      count.with.set(feature, (count.with.get(feature) ?? 0) + 1);
    }
  }
  const features = featuresOf(asked).filter((feature) => seen.has(feature));
  if (features.length === 0) return [];
  const scores = [...counts].map(([templateId, count]) => {
    const of = (feature: string) => Math.log(((count.with.get(feature) ?? 0) + UNSEEN) / (count.uses + 2 * UNSEEN));
    return { templateId, score: Math.log(count.uses) + features.reduce((sum, feature) => sum + of(feature), 0) };
  });
  const highest = Math.max(...scores.map(({ score }) => score));
  const weights = scores.map(({ templateId, score }) => ({ templateId, weight: Math.exp(score - highest) }));
  const total = weights.reduce((sum, { weight }) => sum + weight, 0);
  const proposed = weights
    .map(({ templateId, weight }) => ({ templateId, share: weight / total }))
    .toSorted((a, b) => b.share - a.share);
  return (proposed[0]?.share ?? 0) < SUREST ? [] : proposed.slice(0, most);
}

function featuresOf({ person, subject, categoryIds, recordIds }: Answered): string[] {
  const words = foldedWords(subject)
    .trim()
    .split(" ")
    .filter((word) => word.length > 2 && !/\d/.test(word));
  return [
    ...(person === null ? [] : [`person ${person}`, `domain ${domainOf(person)}`]),
    ...categoryIds.map((id) => `category ${id}`),
    ...recordIds.map((id) => `record ${id}`),
    ...new Set(words.map((word) => `word ${word}`)),
  ];
}
