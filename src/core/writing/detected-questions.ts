import type { Instant } from "../kernel/instant";
import { type DateMention, datesIn } from "../worktime/dates-in-text";
import type { WorkingHours } from "../worktime/working-hours";
import { type Sentence, sentencesOf } from "./sentences";

/** A sentence that asks something of whoever reads it, or commits whoever wrote it, and the date that it names, if any. */
export type Found = Sentence & { readonly date: DateMention | null };

// Words by which one asks for an answer or for something to be sent, in the languages that dates are read in. Asking
// somebody to do a thing ("please leave it open") awaits nothing.
const TOLD =
  "send|tell|let (?:us|me) (?:know|have)|confirm|give (?:us|me)|write (?:us|me|back)|call|ring|reply|answer|forward|return|provide|share|sign|advise|inform|quote|say|state|indicate|respond|get back";
const ASKING = [
  new RegExp(`\\b(?:please|kindly)\\b[^?.!]{0,30}?\\b(?:${TOLD})\\b`, "iu"),
  new RegExp(`\\b(?:${TOLD})\\b[^?.!]{0,60}\\bplease\\b`, "iu"),
  /\blet (?:us|me) (?:know|have)\b/iu,
  /\b(?:we|i) (?:would|should) (?:like|need) to (?:know|hear|have)\b/iu,
  /\b(?:we|i) (?:still )?(?:need|await|look forward to) (?:your|an?) (?:answer|reply|decision|confirmation|quote|offer|signature|approval)\b/iu,
  /\bbitte\b[^?.!]{0,60}\b(?:senden|schicken|teilen|sagen|geben|bestätigen|antworten|melden|nennen|unterschreiben|zusenden)\b/iu,
  /\b(?:senden|schicken|teilen|sagen|geben|bestätigen|antworten|melden|nennen) sie\b[^?.!]{0,30}\b(?:bitte|uns|mir)\b/iu,
  /\b(?:merci de|veuillez|prière de)\b[^?.!]{0,40}\b(?:envoyer|confirmer|indiquer|répondre|transmettre|communiquer|retourner)\b/iu,
  /\b(?:graag|gelieve|stuur|laat)\b[^?.!]{0,40}\b(?:weten|sturen|bevestigen|antwoorden|doorgeven)\b/iu,
  /\bpor favor\b[^?.!]{0,40}\b(?:env[ií]\w+|confirm\w+|diga\w*|respond\w+|indiqu\w+)\b/iu,
];

// A question mark that asks nothing: greetings, and questions that the writer answers or that are a figure of speech.
const NO_QUESTION = [
  /^(?:how are you|how do you do|wie geht|comment allez|hoe gaat)/iu,
  /\b(?:who knows|why not|isn['’]t it|aren['’]t they|don['’]t you think|nicht wahr|n['’]est-ce pas|toch)\s*\?$/iu,
  /^(?:any|further|more|other) questions\s*\?/iu,
  /^questions\s*\?/iu,
];
// What looks like asking and is politeness.
const POLITE = [
  /\bplease (?:do not|don['’]t) hesitate\b/iu,
  /\bplease (?:find|see|accept|note|be (?:aware|informed|advised)|excuse|forgive|ignore|disregard)\b/iu,
  /\b(?:feel free|if you (?:have|need|should have)|in case of|should you)\b/iu,
  /\b(?:let (?:us|me) know|tell us|call|write|contact (?:us|me)) if (?:you|there|anything|we can)\b[^?]*$/iu,
  /\bbei (?:fragen|rückfragen)\b/iu,
  /\bn['’]hésitez pas\b/iu,
];

/** Whether a sentence asks for an answer. */
export function asks(sentence: string): boolean {
  if (POLITE.some((pattern) => pattern.test(sentence))) return false;
  if (/\?["”’»)]*$/.test(sentence)) return !NO_QUESTION.some((pattern) => pattern.test(sentence));
  return ASKING.some((pattern) => pattern.test(sentence));
}

// What one does who commits herself.
const DONE =
  "send|come|call|ring|write|check|look|let you|get back|be (?:back|with you|there)|confirm|forward|bring|deliver|answer|reply|return|post|pay|transfer|order|collect|fetch|prepare|arrange|ask|find out|report|quote|start|begin|finish|have (?:it|them|this|that)|give you|tell you|inform|keep you|follow up|revert|measure|repair|tune|ship|update|share|provide|visit|phone|email|mail|sort|settle|do (?:it|so|that|this)|take care";
const SOMEBODY = "i|we|he|she|they|[\\p{Lu}][\\p{L}’'-]+";
const COMMITTING = [
  new RegExp(
    `\\b(?:i|we)(?: will|['’]ll| shall| am going to| are going to) (?:(?:then|also|gladly|certainly|both|have|be able to|try to) )?(?:${DONE})\\b`,
    "iu",
  ),
  new RegExp(`(?:^|[\\s(“"])(?:${SOMEBODY}) will (?:then |also )?(?:${DONE})\\b`, "u"),
  /\b(?:you will|you['’]ll) (?:have|hear|get|receive)\b/iu,
  /\b(?:will|['’]ll) be (?:with you|sent|posted|delivered|there|ready|back|in touch)\b/iu,
  /\b(?:i|we) (?:promise|undertake|intend) to\b/iu,
  /\b(?:ich|wir) (?:werde|werden)\b[^.!?]{0,80}\b(?:senden|schicken|melden|kommen|prüfen|anrufen|liefern|antworten|zusenden)\b/iu,
  /\b(?:ich melde mich|wir melden uns|ich komme|wir kommen auf sie zu)\b/iu,
  /\b(?:je|nous) (?:vous )?(?:enverrai|enverrons|rappellerai|rappellerons|reviendrai|reviendrons|répondrai|répondrons|confirmerai|confirmerons)\b/iu,
  /\b(?:ik zal|wij zullen|we zullen)\b[^.!?]{0,80}\b(?:sturen|bellen|komen|antwoorden|nakijken|leveren)\b/iu,
  /\b(?:enviaré|enviaremos|llamaré|llamaremos|responderé|responderemos)\b/iu,
];
// Somebody goes or comes on a day: the present tense of those who mean what they say.
const PRESENT = /\b(?:i|we)(?: then)? (?:come|send|call|ring|deliver|bring|collect|fetch|start|begin|write)\b/iu;
const UNSURE = /\b(?:would|could|might|may|can|hope to|unless|whenever|never|not|no longer|cannot|won['’]t)\b/iu;

/** Whether a sentence commits its writer, or who is with her, to do something; `isDated` when it names a date. */
export function commits(sentence: string, isDated: boolean): boolean {
  if (sentence.endsWith("?")) return false;
  const found = COMMITTING.map((pattern) => pattern.exec(sentence)).find((match) => match !== null);
  if (found !== undefined && found !== null) return !UNSURE.test(found[0]);
  return isDated && PRESENT.test(sentence);
}

const MAX_FOUND = 5;

/** The sentences of a text that ask for an answer, in their order, with the dates that they name, seen from `now`. */
export function asksIn(text: string, now: Instant, hours: WorkingHours): Found[] {
  return sentencesOf(text)
    .filter((sentence) => asks(sentence.text))
    .slice(0, MAX_FOUND)
    .map((sentence) => ({ ...sentence, date: dateOf(sentence, now, hours) }));
}

/** The sentences of a text that commit its writer, in their order, with the dates that they name, seen from `now`. */
export function promisesIn(text: string, now: Instant, hours: WorkingHours): Found[] {
  return sentencesOf(text)
    .map((sentence): Found => ({ ...sentence, date: dateOf(sentence, now, hours) }))
    .filter(({ text: words, date }) => commits(words, date !== null))
    .slice(0, MAX_FOUND);
}

function dateOf({ text }: Sentence, now: Instant, hours: WorkingHours): DateMention | null {
  return datesIn(text, now, hours, "closes").find(({ at }) => at > now) ?? null;
}
