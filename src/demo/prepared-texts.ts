import type { Category } from "../core/categories/category";
import { CHOICES_ATTRIBUTE, DAYS_ATTRIBUTE } from "../core/templates/blank";
import type { Template, TemplateHabits } from "../core/templates/template";
import { type Deps, editTemplate, type TrayGrant } from "../operations/index.server";

const blank = (kind: string, label: string, more = "") => `<span data-blank="${kind}"${more}>${label}</span>`;
const inWorkingDays = (days: number) =>
  blank("in-working-days", "in so many working days", ` ${DAYS_ATTRIBUTE}="${days}"`);
const GREETING = `<p>${blank("greeting", "greeting")},</p>`;
const CLOSING = `<p>With kind regards<br>${blank("my-name", "your name")}<br>${blank("tray-name", "name of the tray")}</p>`;

type Prepared = Pick<Template, "name" | "folder" | "key" | "description" | "subject" | "html"> & {
  readonly language?: string;
  readonly habits?: TemplateHabits;
  /** The codes of the categories that the conversation gets with it. */
  readonly codes?: readonly string[];
};

const PREPARED: readonly Prepared[] = [
  {
    name: "Appointment on site",
    folder: "Visits",
    key: "visit",
    description: "Offers a day for a visit and asks whether it suits",
    subject: "Appointment for [record-title]",
    html: `${GREETING}<p>thank you for your message. We could come on ${blank("date", "which day?")} at ${blank("text", "what time?")}, to the ${blank("choice", "which gallery?", ` ${CHOICES_ATTRIBUTE}="north gallery | south gallery | vestry"`)}, and would need about ${blank("number", "how many hours?")} hours.</p><div data-passage="unless the visit is on the scaffold"><p>The scaffold has to be free on that day; please tell the sacristan.</p></div><p>Could you let us know by ${inWorkingDays(5)} whether this suits you?</p>${CLOSING}`,
    habits: { expectDays: 5 },
    codes: ["TU"],
  },
  {
    name: "We received your letter",
    folder: "",
    key: "received",
    description: "Says that it came and by when it is answered",
    subject: "",
    html: `${GREETING}<p>your letter reached us. ${blank("owner", "who answers?")} will answer it by ${inWorkingDays(3)}.</p>${CLOSING}`,
  },
  {
    name: "Offer goes out",
    folder: "Money",
    key: "offer",
    description: "With the offer enclosed, and a follow-up after ten working days",
    subject: "Our offer for [record-title]",
    html: `${GREETING}<p>attached is our offer for ${blank("record-title", "which work?")} of ${blank("number", "how much?")}. It holds until ${blank("date", "which day?")}.</p>${CLOSING}`,
    habits: { followUp: { days: 10, text: "Ask about the offer" } },
  },
  {
    name: "Besuch vor Ort",
    folder: "Visits",
    key: "besuch",
    description: "The same in German",
    subject: "Termin für [record-title]",
    language: "de",
    html: `${GREETING}<p>vielen Dank für Ihre Nachricht. Wir könnten am ${blank("date", "an welchem Tag?")} um ${blank("text", "um wie viel Uhr?")} kommen. Bitte sagen Sie uns bis ${inWorkingDays(5)}, ob Ihnen das passt.</p><p>Mit freundlichen Grüßen<br>${blank("my-name", "Ihr Name")}</p>`,
    habits: { expectDays: 5 },
  },
];

/** The prepared texts of the office. */
export async function prepareTexts(deps: Deps, grant: TrayGrant, categories: readonly Category[]): Promise<void> {
  for (const { codes = [], habits = {}, language = "en", ...written } of PREPARED) {
    const categoryIds = categories.filter(({ code }) => codes.includes(code)).map(({ id }) => id);
    const given = categoryIds.length === 0 ? habits : { ...habits, categoryIds };
    const kept = await editTemplate(deps, grant, {
      ...written,
      language,
      habits: given,
      id: null,
      scope: "tray",
      version: 0,
    });
    if (!kept.ok) throw new Error(`could not prepare ${written.name}: ${kept.error.kind}`);
  }
}
