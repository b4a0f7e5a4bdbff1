import type { StreamLetter } from "~/core/filing/stream";

/** What somebody or something would decide about a letter. */
export type Guess = StreamLetter["decided"];

/** Something that guesses what is decided about a letter, and learns what was. */
export type Guesser = {
  readonly guess: (letter: StreamLetter) => Guess;
  readonly learn: (letter: StreamLetter) => void;
};

const NOTHING: Guess = { owner: null, categories: [], record: null, settledUnanswered: false };

/** What was decided last about what the same person wrote. */
export class LastDecision implements Guesser {
  readonly #last = new Map<string, Guess>();
  guess({ from }: StreamLetter): Guess {
    return this.#last.get(from.address) ?? NOTHING;
  }
  learn({ from, decided }: StreamLetter): void {
    this.#last.set(from.address, decided);
  }
}

/** What is knowable about each letter, which is as good as it can get. */
export class Knowing implements Guesser {
  constructor(private readonly knowable: ReadonlyMap<string, Guess>) {}
  guess({ id }: StreamLetter): Guess {
    return this.knowable.get(id) ?? NOTHING;
  }
  learn(): void {}
}

const SMOOTHING = 0.1;
const NONE = "-";

/** Multinomial naive Bayes over all words, the sender and their domain, one choice for each kind (McCallum and Nigam 1998). */
export class NaiveBayes implements Guesser {
  readonly #words = new Map<string, Map<string, number>>();
  readonly #totals = new Map<string, number>();
  readonly #given = new Map<string, number>();
  readonly #vocabulary = new Set<string>();
  #letters = 0;

  guess(letter: StreamLetter): Guess {
    const words = wordsOf(letter);
    const best = (kind: string) => {
      const labels = [...this.#given.keys()].filter((label) => label.startsWith(kind));
      const scored = labels.map((label) => ({ label, score: this.#score(label, words) }));
      const found = scored.toSorted((a, b) => b.score - a.score)[0]?.label.slice(kind.length) ?? NONE;
      return found === NONE ? null : found;
    };
    const category = best("c:");
    return {
      owner: best("o:"),
      categories: category === null ? [] : [category],
      record: best("r:"),
      settledUnanswered: best("s:") === "yes",
    };
  }

  learn(letter: StreamLetter): void {
    const { owner, categories, record, settledUnanswered } = letter.decided;
    this.#letters += 1;
    const labels = [
      `o:${owner ?? NONE}`,
      `r:${record ?? NONE}`,
      `s:${settledUnanswered ? "yes" : "no"}`,
      ...categories.map((id) => `c:${id}`),
    ];
    const words = wordsOf(letter);
    for (const label of labels) {
      this.#given.set(label, (this.#given.get(label) ?? 0) + 1);
      this.#totals.set(label, (this.#totals.get(label) ?? 0) + words.length);
      const counts = this.#words.get(label) ?? new Map<string, number>();
      this.#words.set(label, counts);
      for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
    }
    for (const word of words) this.#vocabulary.add(word);
  }

  #score(label: string, words: readonly string[]): number {
    const counts = this.#words.get(label);
    const all = (this.#totals.get(label) ?? 0) + SMOOTHING * this.#vocabulary.size;
    const usual = Math.log((this.#given.get(label) ?? 0) / this.#letters);
    return words.reduce((sum, word) => sum + Math.log(((counts?.get(word) ?? 0) + SMOOTHING) / all), usual);
  }
}

function wordsOf({ from, subject, text }: StreamLetter): string[] {
  const words = `${subject} ${text}`.toLowerCase().match(/[\p{L}\p{N}'’-]+/gu) ?? [];
  const domain = from.address.slice(from.address.lastIndexOf("@") + 1);
  return [...new Set([...words, `from:${from.address}`, `domain:${domain}`])];
}
