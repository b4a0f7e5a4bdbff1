import { templatesTexts } from "../../texts/en/templates";
import { type Said, saidOf } from "../../texts/said";
import { type Blank, MOST_DAYS } from "./blank";
import { TEMPLATE_LANGUAGES } from "./greeting";
import { placesIn } from "./places";
import { foldersOf, type Template, type TemplateHabits } from "./template";

const said = saidOf(templatesTexts);

/** What is wrong with a template, by field. */
export type TemplateProblems = Partial<
  Record<"name" | "folder" | "key" | "language" | "subject" | "html" | "expectDays" | "followUp", Said>
>;

/** As far as the others of the same scope matter to a template. */
export type OtherTemplate = Pick<Template, "name" | "folder" | "key">;

export const MOST_TEMPLATE_CHARACTERS = 200_000;
const MOST_NAME = 80;
const MOST_FOLDERS = 5;
const MOST_SUBJECT = 300;
const MOST_FOLLOW_UP = 500;
const KEY = /^[\p{L}\p{N}-]{1,20}$/u;

/** What is wrong with a template among the others of its scope; nothing when it can stand. */
export function checkTemplate(
  template: Omit<Template, "id" | "version">,
  others: readonly OtherTemplate[],
): TemplateProblems {
  const problems = {
    name: nameProblem(template, others),
    folder: folderProblem(template.folder),
    key: keyProblem(template.key, others),
    language: TEMPLATE_LANGUAGES.includes(template.language) ? null : said("templates.chooseALanguage"),
    subject: subjectProblem(template.subject),
    html: textProblem(template.html),
    ...habitProblems(template.habits),
  };
  return Object.fromEntries(Object.entries(problems).filter(([, problem]) => problem !== null));
}

function nameProblem({ name, folder }: OtherTemplate, others: readonly OtherTemplate[]): Said | null {
  if (name.trim() === "") return said("templates.giveItAName");
  if (name.trim().length > MOST_NAME) return said("templates.aNameHasAtMost", { most: MOST_NAME });
  const isSame = (other: OtherTemplate) =>
    other.name.toLowerCase() === name.trim().toLowerCase() && other.folder.toLowerCase() === folder.toLowerCase();
  return others.some(isSame) ? said("templates.anotherHasThatName") : null;
}

function folderProblem(folder: string): Said | null {
  const names = foldersOf(folder);
  const isLong = names.some((name) => name.length > MOST_NAME);
  if (isLong) return said("templates.aNameHasAtMost", { most: MOST_NAME });
  return names.length > MOST_FOLDERS ? said("templates.atMostFolders", { most: MOST_FOLDERS }) : null;
}

function keyProblem(key: string, others: readonly OtherTemplate[]): Said | null {
  if (key === "") return null;
  if (!KEY.test(key)) return said("templates.aKeyIsAWord");
  const other = others.find((one) => one.key.toLowerCase() === key.toLowerCase());
  return other === undefined ? null : said("templates.keyIsTaken", { name: other.name });
}

function subjectProblem(subject: string): Said | null {
  if (subject.length > MOST_SUBJECT) return said("templates.aSubjectHasAtMost", { most: MOST_SUBJECT });
  return /[\r\n]/.test(subject) ? said("templates.aSubjectIsOneLine") : null;
}

function textProblem(html: string): Said | null {
  if (html.length > MOST_TEMPLATE_CHARACTERS)
    return said("templates.aTextHasAtMost", { most: MOST_TEMPLATE_CHARACTERS });
  const { blanks, passages } = placesIn(html);
  if (blanks.length === 0 && html.replace(/<[^>]*>|&nbsp;|\s/g, "") === "") return said("templates.writeTheText");
  if (blanks.some(({ blank }) => blank.label === "")) return said("templates.sayWhatBelongsThere");
  if (blanks.some(({ blank }) => isNoChoice(blank))) return said("templates.aChoiceHasTwo");
  return passages.some(({ question }) => question.trim() === "") ? said("templates.askWhenItBelongs") : null;
}

const isNoChoice = (blank: Blank) => blank.kind === "choice" && blank.choices.length < 2;

const isDays = (days: number) => Number.isInteger(days) && days >= 1 && days <= MOST_DAYS;

function habitProblems({ expectDays, followUp }: TemplateHabits) {
  const days = said("templates.daysFromTo", { most: MOST_DAYS });
  return {
    expectDays: expectDays === undefined || isDays(expectDays) ? null : days,
    followUp: followUp === undefined ? null : isDays(followUp.days) ? followUpProblem(followUp.text) : days,
  };
}

function followUpProblem(text: string): Said | null {
  if (text.trim() === "") return said("templates.sayWhatToFollowUp");
  return text.length > MOST_FOLLOW_UP ? said("templates.aTextHasAtMost", { most: MOST_FOLLOW_UP }) : null;
}
