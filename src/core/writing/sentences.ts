/** A sentence of a text, with its place in it. */
export type Sentence = { readonly text: string; readonly at: number };

const segmenters = new Map<string, Intl.Segmenter>();

/** The sentences of a text (Unicode UAX #29), lines that stand apart being apart; without the space around them. */
export function sentencesOf(text: string): Sentence[] {
  const segmenter = segmenters.get("") ?? new Intl.Segmenter(undefined, { granularity: "sentence" });
  segmenters.set("", segmenter);
  const sentences: Sentence[] = [];
  // A line that is broken goes on in the next one; to the segmenter it would be over.
  for (const paragraph of text.matchAll(/[^\n]+(?:\n(?!\s*\n)[^\n]+)*/g)) {
    for (const { segment, index } of segmenter.segment(paragraph[0].replaceAll("\n", " "))) {
      const bare = segment.trim();
      if (bare !== "") sentences.push({ text: bare.replace(/\s+/g, " "), at: paragraph.index + index });
    }
  }
  return sentences;
}
