import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import { type Named, namedBy } from "./named-by";
import type { Rule } from "./rule";

/** A kind of things that rules name. */
export type NamedKind = keyof Named;

/** Whether things are still there that rules name. */
export type StillThere = { readonly [Kind in NamedKind]: (id: Named[Kind][number]) => boolean };

/** The kinds of things of which a rule names one that is no more; it is not to act while there are any. */
export function goneFrom(rule: Pick<Rule, "condition" | "exception" | "actions">, there: StillThere): NamedKind[] {
  const { members, categories, records, contacts, rounds, groups, templates } = namedBy([rule]);
  const gone: Readonly<Record<NamedKind, boolean>> = {
    members: !members.every(there.members),
    categories: !categories.every(there.categories),
    records: !records.every(there.records),
    contacts: !contacts.every(there.contacts),
    rounds: !rounds.every(there.rounds),
    groups: !groups.every(there.groups),
    templates: !templates.every(there.templates),
  };
  return (Object.keys(gone) as NamedKind[]).filter((kind) => gone[kind]);
}

const said = saidOf(rulesTexts);

const KINDS: Readonly<Record<NamedKind, Said>> = {
  members: said("rules.aColleague"),
  categories: said("rules.aCategory"),
  records: said("rules.aRecord"),
  contacts: said("rules.aContact"),
  rounds: said("rules.aRound"),
  groups: said("rules.aGroup"),
  templates: said("rules.aTemplate"),
};

/** That something does nothing at the moment, as it names things of these kinds that are no more: a sentence. */
export function isStopped(gone: readonly NamedKind[]): Said {
  return said("rules.isStopped", { gone: { all: gone.map((kind) => KINDS[kind]), by: "and" } });
}
