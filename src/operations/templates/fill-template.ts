import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId, TemplateId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { filledHtml, filledSubject } from "../../core/templates/fill-template";
import type { Known } from "../../core/templates/known";
import type { Template } from "../../core/templates/template";
import { workingDayAfter } from "../../core/worktime/working-hours";
import { hoursOfTray, type Member, type TrayGrant } from "../../storage/access/index";
import { conversationRow, templatesFor, theyWroteLastAt } from "../../storage/conversation/index";
import { recordByCode } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { firstRecord, whatIsKnown } from "./what-is-known";

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
    knownOfLetter(deps, grant, writer, letter),
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

async function knownOfLetter(
  { db }: Deps,
  grant: TrayGrant,
  writer: Pick<Member, "name">,
  { conversationId, recordCode, to }: LetterBegun,
): Promise<Known> {
  const row = conversationId === null ? null : await conversationRow(db, grant, conversationId);
  const [record, theyWroteAt] = await Promise.all([
    recordCode === "" ? firstRecord(db, grant, row?.recordIds ?? []) : recordByCode(db, grant, recordCode),
    row === null ? null : theyWroteLastAt(db, row.id),
  ]);
  const ownerId = row?.ownerId ?? null;
  return whatIsKnown(db, grant.tray, { to, record, ownerId, theyWroteAt, writer: writer.name });
}
