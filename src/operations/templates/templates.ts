import { type TemplateId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { checkTemplate, type TemplateProblems } from "../../core/templates/check-template";
import { foldersOf, scopeOf, type Template, type TemplateScope } from "../../core/templates/template";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import {
  lockTemplates,
  removeTemplate,
  saveTemplate,
  type TemplateUses,
  templateById,
  templatesFor,
  templateUses,
} from "../../storage/conversation/index";
import { categoriesOf } from "../../storage/facts/index";
import type { Deps, Within } from "../base/deps";
import { leadsEverywhere } from "../base/leads-everywhere";
import type { Refusal } from "../refusals/refusal";

/** Within which the uses of a template are counted. */
const COUNTED = 365 * DAY;

/** A template with how it was used in the tray within a year; null where it was not. */
export type ListedTemplate = Template & { readonly uses: TemplateUses | null };

/** The templates that a member can use in a tray, in the order of their tree. */
export async function getTemplates(deps: Deps, grant: TrayGrant): Promise<ListedTemplate[]> {
  const [templates, uses] = await Promise.all([
    templatesFor(deps.db, grant),
    templateUses(deps.db, grant.tray.id, later(deps.now(), -COUNTED)),
  ]);
  return templates.map((template) => ({ ...template, uses: uses.get(template.id) ?? null }));
}

/** A template as it is written; without an id it is a new one. `version` is the one that was changed. */
export type TemplateDraft = Omit<Template, "id" | "trayId" | "memberId"> & {
  readonly id: TemplateId | null;
  readonly scope: TemplateScope;
};

/** Why a template was not kept. */
export type TemplateRefusal = Refusal | { readonly kind: "template-problems"; readonly problems: TemplateProblems };

/**
 * Keeps a template: a tray's for those who lead it, one common to all trays for those who lead them all, a member's own for
 * herself. One that was changed since it was read is not written over.
 */
export async function editTemplate(
  deps: Deps,
  grant: TrayGrant,
  { id, scope, ...written }: TemplateDraft,
): Promise<Result<TemplateId, TemplateRefusal>> {
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<TemplateId, TemplateRefusal>> => {
    await lockTemplates(trx);
    const here = await templatesFor(trx, grant);
    const before = here.find((one) => one.id === id) ?? null;
    if (id !== null && before === null) return err({ kind: "no-such", what: "template" });
    const template = { ...inForm(written), ...ofWhom(grant, scope) };
    const refusal = await whyNot(trx, deps, grant, before, template);
    if (refusal !== null) return err(refusal);
    const others = here.filter((one) => one.id !== id && scopeOf(one) === scope);
    const problems = checkTemplate(template, others);
    if (Object.keys(problems).length > 0) return err({ kind: "template-problems", problems });
    const keptAs = id ?? trustedId<TemplateId>(deps.newId());
    await saveTemplate(trx, { ...template, id: keptAs, version: (before?.version ?? 0) + 1 }, deps.now());
    return ok(keptAs);
  });
}

const inForm = <T extends Pick<Template, "name" | "folder" | "key">>(written: T): T => ({
  ...written,
  name: written.name.trim(),
  folder: foldersOf(written.folder).join("/"),
  key: written.key.trim(),
});

const ofWhom = ({ tray, memberId }: TrayGrant, scope: TemplateScope) => ({
  trayId: scope === "tray" ? tray.id : null,
  memberId: scope === "own" ? memberId : null,
});

// Why a template is not to be kept as it is written, in the place of another (null for a new one).
async function whyNot(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  before: Template | null,
  template: Omit<Template, "id">,
): Promise<Refusal | null> {
  for (const one of before === null ? [template] : [before, template]) {
    const refusal = await notTheirs(trx, deps, grant, one);
    if (refusal !== null) return refusal;
  }
  if (before !== null && before.version !== template.version) return { kind: "template-changed" };
  const { categoryIds = [] } = template.habits;
  const known = new Set((await categoriesOf(trx, grant.tray.id)).map(({ id }) => id));
  return categoryIds.every((id) => known.has(id)) ? null : { kind: "no-such", what: "category" };
}

/** Takes a template away, or brings it back; for those who may change it. */
export async function dropTemplate(
  deps: Deps,
  grant: TrayGrant,
  id: TemplateId,
  drops: boolean,
): Promise<Result<null, Refusal>> {
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const template = await templateById(trx, id);
    if (template === null || (template.trayId !== null && template.trayId !== grant.tray.id))
      return err({ kind: "no-such", what: "template" });
    const refusal = await notTheirs(trx, deps, grant, template);
    if (refusal !== null) return err(refusal);
    await removeTemplate(trx, id, drops ? deps.now() : null);
    return ok(null);
  });
}

// Why a member may not keep a template as one of a tray, of a member, or of all.
async function notTheirs(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  template: Pick<Template, "trayId" | "memberId">,
): Promise<Refusal | null> {
  if (grant.role === "reader") return { kind: "readers-only-read" };
  switch (scopeOf(template)) {
    case "own":
      return template.memberId === grant.memberId ? null : { kind: "no-such", what: "template" };
    case "tray":
      return grant.role === "lead" ? null : { kind: "leads-only" };
    case "everywhere":
      return (await leadsEverywhere(trx, deps, grant.memberId)) ? null : { kind: "leads-of-all-only" };
  }
}
