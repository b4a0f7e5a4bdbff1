import type { Docket } from "../../core/docket/derive-docket";
import type { Mailbox } from "../../core/kernel/email-address";
import type { TemplateId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { filledHtml } from "../../core/templates/fill-template";
import { unfilledBlanks, withoutPassages } from "../../core/templates/unfilled";
import { hoursOfTray, type Tray } from "../../storage/access/index";
import { templatesOfTray } from "../../storage/conversation/index";
import type { Asking } from "../base/deps";
import { firstRecord, whatIsKnown } from "./what-is-known";

/** A template that nobody is there to fill: its text, or what of it is not known. */
export type FilledByItself =
  | { readonly html: string }
  | { readonly name: string; readonly unfilled: readonly string[] };

/** Fills a template of a tray for an answer that goes by itself, without its passages; null where it is no more. */
export async function fillByItself(
  deps: Asking,
  tray: Tray,
  id: TemplateId,
  answer: { readonly to: Mailbox; readonly theyWroteAt: Instant; readonly docket: Docket },
): Promise<FilledByItself | null> {
  const template = (await templatesOfTray(deps.db, tray.id)).find((one) => one.id === id);
  if (template === undefined) return null;
  const { to, theyWroteAt, docket } = answer;
  const record = await firstRecord(deps.db, null, docket.recordIds);
  const about = { to, record, ownerId: docket.ownerId, theyWroteAt, writer: tray.name };
  const [known, hours] = await Promise.all([whatIsKnown(deps.db, tray, about), hoursOfTray(deps.db, tray)]);
  const html = withoutPassages(
    filledHtml(template.html, known, { now: deps.now(), hours, language: template.language }),
  );
  const unfilled = unfilledBlanks(html).map(({ label }) => label);
  return unfilled.length === 0 ? { html } : { name: template.name, unfilled };
}
