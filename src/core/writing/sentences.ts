/** A sentence of a text, with its place in it. */
export type Sentence = { readonly text: string; readonly at: number };

// Not of the language of whichever machine this runs on.
const segmenter = new Intl.Segmenter("en", { granularity: "sentence" });

/** The sentences of a text (Unicode UAX #29), lines that stand apart being apart; without the space around them. */
export function sentencesOf(text: string): Sentence[] {
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

const MOST_CHARACTERS = 90;

/** As much of a sentence as stands on a line that says something about it. */
export function shortened(sentence: string): string {
  return sentence.length <= MOST_CHARACTERS ? sentence : `${sentence.slice(0, MOST_CHARACTERS - 1).trimEnd()}…`;
}
