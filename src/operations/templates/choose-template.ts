import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId } from "../../core/kernel/ids";
import { proposeTemplates } from "../../core/templates/propose-templates";
import type { Template } from "../../core/templates/template";
import type { TrayGrant } from "../../storage/access/index";
import { conversationRow, pastUses, templatesFor } from "../../storage/conversation/index";
import type { Deps } from "../base/deps";

/** A template to write with; `isProposed` where it was used for such mail before. */
export type TemplateToChoose = Template & { readonly isProposed: boolean };

const MOST_PROPOSED = 3;

/** The templates that a member can write with, first those that were used for mail such as this conversation has. */
export async function templatesToChoose(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId | null,
): Promise<TemplateToChoose[]> {
  const [templates, row] = await Promise.all([
    templatesFor(deps.db, grant),
    conversationId === null ? null : conversationRow(deps.db, grant, conversationId),
  ]);
  const uses = row === null || templates.length === 0 ? [] : await pastUses(deps.db, grant.tray.id);
  const here = uses.filter(({ templateId }) => templates.some(({ id }) => id === templateId));
  const { subject = "", categoryIds = [], recordIds = [] } = row ?? {};
  const asked = {
    person: (row?.whoAddress || null) as EmailAddress | null,
    subject,
    categoryIds,
    recordIds,
  };
  const proposed = proposeTemplates(here, asked, MOST_PROPOSED).map(({ templateId }) => templateId);
  const placeOf = ({ id }: Template) => (proposed.includes(id) ? proposed.indexOf(id) : proposed.length);
  return templates
    .map((template) => ({ ...template, isProposed: proposed.includes(template.id) }))
    .toSorted((a, b) => placeOf(a) - placeOf(b));
}
