import { describe, expect, it } from "vitest";
import { readInstant } from "../kernel/instant";
import { usualHours } from "../worktime/working-hours";
import { asks, asksIn, commits, promisesIn } from "./detected-questions";
import { sentencesOf } from "./sentences";

const hours = usualHours("Europe/London");
const now = (() => {
  const at = readInstant("2026-11-25T09:30:00Z");
  if (at === null) throw new Error("no moment");
  return at;
})();

describe("a sentence that asks for an answer", () => {
  it.each([
    "When could the lorry be in the yard?",
    "Could you let us have the key by Friday?",
    "Please send us the signed form.",
    "Please let me know which day suits you.",
    "Kindly confirm receipt of the deposit.",
    "Let us know by Friday noon.",
    "We would like to know what the carriage is.",
    "We still need your signature for the insurer.",
    "A short answer by Monday, please: send the number of the policy please.",
    "Bitte senden Sie uns die Zeichnung.",
    "Könnten Sie am Montag kommen?",
    "Teilen Sie uns bitte den Termin mit.",
    "Merci de confirmer la date.",
    "Veuillez nous indiquer le prix.",
    "Graag horen wij van u; laat het ons weten.",
    "Por favor, confirme la fecha.",
    "He asked: “Is it ready?”",
  ])("%s", (sentence) => expect(asks(sentence)).toBe(true));

  it.each([
    "Please find the invoice attached.",
    "Please do not hesitate to call us.",
    "Feel free to write if anything is unclear.",
    "If you have any questions, please let us know.",
    "Please note that we are closed on Friday.",
    "Please leave the box open overnight.",
    "How are you?",
    "Any questions?",
    "It is late, isn't it?",
    "We will send it on Thursday.",
    "Thank you for your answer.",
    "Bei Fragen melden Sie sich bitte.",
    "N’hésitez pas à nous appeler.",
    "The bellows are done.",
  ])("not: %s", (sentence) => expect(asks(sentence)).toBe(false));
});

describe("a sentence that commits its writer", () => {
  it.each([
    ["I will send it by Thursday.", false],
    ["We'll come back to you next week.", false],
    ["We shall have it ready in May.", false],
    ["I am going to call the joiner today.", false],
    ["Tobias will bring the drawings.", false],
    ["You will have it by Friday.", false],
    ["The drawings will be with you before the committee meets.", false],
    ["We come on Thursday.", true],
    ["Ich werde Ihnen die Liste schicken.", false],
    ["Wir melden uns nächste Woche.", false],
    ["Je vous enverrai le devis.", false],
    ["Ik zal u bellen.", false],
    ["Le enviaremos la factura.", false],
  ])("%s", (sentence, dated) => expect(commits(sentence, dated)).toBe(true));

  it.each([
    ["I will be away until Monday.", true],
    ["Will you send it by Thursday?", true],
    ["We come from Thornwick.", false],
    ["Col can come on a morning that week.", true],
    ["It will rain on Friday.", true],
    ["We might send it later.", false],
    ["Thank you for the parcel.", false],
    ["They never answered.", false],
    ["You will see that it is dry.", false],
  ])("not: %s", (sentence, dated) => expect(commits(sentence, dated)).toBe(false));
});

describe("what is found in a letter", () => {
  const letter = `Dear Mr Quayle,

thank you for the recording. I will send the estimate by Friday noon.
Could you tell us by 3 December whether the cellar
is dry?

Kind regards
Ines`;

  it("are the sentences, over lines, with the dates that they name", () => {
    const [ask, ...more] = asksIn(letter, now, hours);
    expect(more).toEqual([]);
    expect(ask).toMatchObject({ text: "Could you tell us by 3 December whether the cellar is dry?" });
    expect(ask?.date?.at).toBe(readInstant("2026-12-03T17:00:00Z"));
    expect(letter.slice(ask?.at).startsWith("Could you")).toBe(true);
    const [promise] = promisesIn(letter, now, hours);
    expect(promise?.text).toBe("I will send the estimate by Friday noon.");
    expect(promise?.date?.at).toBe(readInstant("2026-11-27T12:00:00Z"));
  });

  it("is nothing in an empty one, and at most five of each", () => {
    expect([asksIn("", now, hours), promisesIn("", now, hours), sentencesOf("  \n\n ")]).toEqual([[], [], []]);
    expect(asksIn("Is it dry? ".repeat(9), now, hours)).toHaveLength(5);
  });
});
