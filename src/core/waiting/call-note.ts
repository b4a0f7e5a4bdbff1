/** Whom to telephone, and about what. */
export type Call = {
  readonly name: string;
  readonly organisation: string;
  /** Empty where no number is known. */
  readonly phone: string;
  /** What we asked, in our own sentences. */
  readonly questions: readonly string[];
  /** What it is about, where nothing was asked in so many words. */
  readonly subject: string;
};

/** A note to have before one while telephoning: whom, at which number, what to ask; and a line for what was said. */
export function callNote({ name, organisation, phone, questions, subject }: Call): string {
  const who = organisation === "" || organisation === name ? name : `${name} (${organisation})`;
  const asks = questions.length === 0 ? [`what became of “${subject}”?`] : questions;
  const head = `Call ${who}, ${phone === "" ? "number not known" : phone}`;
  return [head, ...asks.map((ask) => `- ask: ${ask}`), "- said: "].join("\n");
}
