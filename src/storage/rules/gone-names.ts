import { asRule } from "../../core/automatic-answers/automatic-answer";
import type { AutomaticAnswerId, RuleId } from "../../core/kernel/ids";
import { goneFrom, type NamedKind } from "../../core/rules/gone-names";
import { namedBy } from "../../core/rules/named-by";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import type { KeptAnswer } from "./automatic-answers";
import type { KeptRule } from "./rules";

/** Of some rules those that name what is no more, and which kinds of things: they stop until somebody changes them. */
export function stoppedRules(
  db: Database,
  rules: readonly KeptRule[],
): Promise<ReadonlyMap<RuleId, readonly NamedKind[]>> {
  return namingWhatIsGone(db, rules);
}

/** The same of automatic answers. */
export function stoppedAnswers(
  db: Database,
  answers: readonly KeptAnswer[],
): Promise<ReadonlyMap<AutomaticAnswerId, readonly NamedKind[]>> {
  return namingWhatIsGone(
    db,
    answers.map((answer) => ({ id: answer.id, trayId: answer.trayId, ...asRule(answer) })),
  );
}

async function namingWhatIsGone<Id>(
  db: Database,
  rules: readonly (Pick<KeptRule, "trayId" | "condition" | "exception" | "actions"> & { readonly id: Id })[],
): Promise<ReadonlyMap<Id, readonly NamedKind[]>> {
  const named = Object.values(namedBy(rules)).flat();
  if (named.length === 0) return new Map();
  // A member is there for the trays that she may look into, and a contact for its own.
  const rows = await ask<{ id: string; tray_id: string | null }>(
    db,
    /* sql */ `
    select member_id as id, tray_id from tray_member join member on member.id = member_id
    where member_id = any(cast(:named as uuid[])) and disabled_at is null
    union all select id, tray_id from contact where id = any(cast(:named as uuid[])) and removed_at is null
    union all select id, tray_id from round where id = any(cast(:named as uuid[])) and removed_at is null
    union all select id, tray_id from member_group where id = any(cast(:named as uuid[])) and removed_at is null
    union all select id, tray_id from template
      where id = any(cast(:named as uuid[])) and removed_at is null and member_id is null
    union all select id, null from category where id = any(cast(:named as uuid[])) and removed_at is null
    union all select id, null from record where id = any(cast(:named as uuid[]))`,
    { named: [...new Set<string>(named)] },
  );
  const there = new Set(rows.map(({ id, tray_id: trayId }) => (trayId === null ? id : `${trayId} ${id}`)));
  const stopped = rules.map((rule): readonly [Id, readonly NamedKind[]] => {
    const ofTray = (id: string) => there.has(`${rule.trayId} ${id}`);
    const ofOffice = (id: string) => there.has(id);
    return [
      rule.id,
      goneFrom(rule, {
        ...{ members: ofTray, contacts: ofTray, rounds: ofTray, groups: ofTray },
        ...{ categories: ofOffice, records: ofOffice },
        // Of the tray, or common to all.
        templates: (id) => ofTray(id) || ofOffice(id),
      }),
    ];
  });
  return new Map(stopped.filter(([, gone]) => gone.length > 0));
}
