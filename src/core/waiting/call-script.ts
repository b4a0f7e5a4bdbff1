import { waitingTexts } from "../../texts/en/waiting";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(waitingTexts);

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

/** A note to have before one while telephoning, line by line: whom, at which number, what to ask; and a line for what was said. */
export function callScript({ name, organisation, phone, questions, subject }: Call): Said[] {
  const who = organisation === "" || organisation === name ? name : `${name} (${organisation})`;
  const asks =
    questions.length === 0
      ? [said("waiting.askWhatBecameOf", { subject })]
      : questions.map((question) => said("waiting.ask", { question }));
  return [
    phone === "" ? said("waiting.callWithoutNumber", { who }) : said("waiting.callWithNumber", { who, phone }),
    ...asks,
    said("waiting.saidOnTheTelephone"),
  ];
}
