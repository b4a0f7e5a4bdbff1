import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId, TemplateId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { filledHtml, filledSubject } from "../../core/templates/fill-template";
import type { Known } from "../../core/templates/known";
import type { Template } from "../../core/templates/template";
import { workingDayAfter } from "../../core/worktime/working-hours";
import { hoursOfTray, type Member, membersOfTray, type TrayGrant } from "../../storage/access/index";
import { contactsWith, conversationRow, templatesFor, theyWroteLastAt } from "../../storage/conversation/index";
import { recordByCode, recordsByIds } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** For which letter a template is used: in a conversation, about a record, to somebody, as far as there are any. */
export type LetterBegun = {
  readonly conversationId: ConversationId | null;
  readonly recordCode: string;
  readonly to: { readonly name: string; readonly address: EmailAddress } | null;
};

/** A template as a letter begins with it: what is known filled in, and its habits with their days. */
export type UsedTemplate = Pick<Template, "id" | "name" | "subject" | "html"> & {
  readonly categoryIds: NonNullable<Template["habits"]["categoryIds"]>;
  /** The end of the working day by which a reply is expected; null for none. */
  readonly expectBy: Instant | null;
  readonly followUp: { readonly text: string; readonly dueAt: Instant } | null;
};

/** Fills a template for a letter of a member's. */
export async function fillTemplate(
  deps: Deps,
  grant: TrayGrant,
  writer: Pick<Member, "name">,
  id: TemplateId,
  letter: LetterBegun,
): Promise<Result<UsedTemplate, Refusal>> {
  const template = (await templatesFor(deps.db, grant)).find((one) => one.id === id);
  if (template === undefined) return err({ kind: "no-such", what: "template" });
  const [known, hours] = await Promise.all([
    whatIsKnown(deps, grant, writer, letter),
    hoursOfTray(deps.db, grant.tray),
  ]);
  const { name, language, habits } = template;
  const using = { now: deps.now(), hours, language };
  const after = (days: number) => workingDayAfter(using.now, days, hours);
  const taken = habits.followUp && after(habits.followUp.days);
  return ok({
    id,
    name,
    subject: filledSubject(template.subject, known, using),
    html: filledHtml(template.html, known, using),
    categoryIds: habits.categoryIds ?? [],
    expectBy: habits.expectDays === undefined ? null : (after(habits.expectDays)?.closes ?? null),
    followUp: habits.followUp && taken ? { text: habits.followUp.text, dueAt: taken.opens } : null,
  });
}

async function whatIsKnown(
  { db }: Deps,
  grant: TrayGrant,
  writer: Pick<Member, "name">,
  { conversationId, recordCode, to }: LetterBegun,
): Promise<Known> {
  const row = conversationId === null ? null : await conversationRow(db, grant, conversationId);
  const [[contact], record, members, theyWroteAt] = await Promise.all([
    to === null ? [] : contactsWith(db, grant.tray.id, [to.address]),
    recordCode === ""
      ? recordsByIds(db, grant, row?.recordIds.slice(0, 1) ?? []).then(([first]) => first ?? null)
      : recordByCode(db, grant, recordCode),
    row?.ownerId == null ? [] : membersOfTray(db, grant.tray.id),
    row === null ? null : theyWroteLastAt(db, row.id),
  ]);
  return {
    theirName: contact?.name || (to?.name ?? ""),
    theirOrganisation: contact?.organisation ?? "",
    theyWroteAt,
    recordCode: record?.code ?? "",
    recordTitle: record?.title ?? "",
    owner: members.find((member) => member.id === row?.ownerId)?.name ?? "",
    myName: writer.name,
    trayName: grant.tray.name,
  };
}
