import { readEmailAddress } from "../../core/kernel/email-address";
import { type ContactId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Round } from "../../core/rounds/round";
import type { RuleNames } from "../../core/rules/condition-in-words";
import { type Named, NOTHING_NAMED, namedBy, type Renaming, renamed } from "../../core/rules/named-by";
import type { Rule } from "../../core/rules/rule";
import type { Template } from "../../core/templates/template";
import { groupsOf, membersWithRoles, type Tray, type TrayGrant } from "../../storage/access/index";
import {
  contactsByIds,
  contactsNamed,
  contactsWith,
  templateNames,
  templatesOfTray,
} from "../../storage/conversation/index";
import { categoriesOf } from "../../storage/facts/index";
import { recordsByCodes, recordsByIds } from "../../storage/records/index";
import { roundsByIds, roundsOf } from "../../storage/rules/index";
import { rulesTexts } from "../../texts/en/rules";
import { saidOf } from "../../texts/said";
import type { Asking, Deps } from "../base/deps";

const said = saidOf(rulesTexts);

/** What the things are called that rules name, and some others, as a viewer may know it (null: everything). */
export async function ruleNamesOf(
  deps: Asking,
  tray: Tray,
  viewer: TrayGrant | null,
  rules: readonly Pick<Rule, "condition" | "exception" | "actions">[],
  also: Named = NOTHING_NAMED,
): Promise<RuleNames> {
  const own = namedBy(rules);
  const named = {
    ...own,
    members: [...own.members, ...also.members],
    categories: [...own.categories, ...also.categories],
    records: [...new Set([...own.records, ...also.records])],
  };
  const members = named.members.length === 0 ? [] : await membersWithRoles(deps.db, tray.id);
  const categories = named.categories.length === 0 ? [] : await categoriesOf(deps.db, tray.id);
  const records = await recordsByIds(deps.db, viewer, named.records);
  const contacts = named.contacts.length === 0 ? [] : await contactsByIds(deps.db, tray.id, named.contacts);
  const groups = named.groups.length === 0 ? [] : await groupsOf(deps.db, { tray });
  const rounds = await roundsByIds(deps.db, tray.id, named.rounds);
  const templates = named.templates.length === 0 ? null : await templateNames(deps.db, named.templates);
  return {
    member: (id) => members.find((one) => one.id === id)?.name ?? said("rules.aFormerColleague"),
    category: (id) => categories.find((one) => one.id === id)?.name ?? said("rules.aFormerCategory"),
    record: (id) => records.find((one) => one.id === id)?.code ?? said("rules.aRecord"),
    contact: (id) => contacts.find((one) => one.id === id)?.name ?? said("rules.aFormerContact"),
    round: (id) => rounds.find((one) => one.id === id)?.name ?? said("rules.aFormerRound"),
    group: (id) => groups.find((one) => one.id === id)?.name ?? said("rules.aFormerGroup"),
    template: (id) => templates?.get(id) ?? said("rules.aFormerTemplate"),
  };
}

/** What a tray has that its rules can name and that no other screen shows: by what it is called. */
export type NamedHere = {
  readonly rounds: readonly Pick<Round, "id" | "name">[];
  readonly templates: readonly Pick<Template, "id" | "name" | "folder">[];
};

/** The rounds of a tray, and the templates that everybody in it has. */
export async function namesForRules(deps: Deps, { tray }: TrayGrant): Promise<NamedHere> {
  const [rounds, templates] = await Promise.all([roundsOf(deps.db, tray.id), templatesOfTray(deps.db, tray.id)]);
  return {
    rounds: rounds.map(({ id, name }) => ({ id, name })),
    templates: templates.map(({ id, name, folder }) => ({ id, name, folder })),
  };
}

/** Finds what rules name by what people call it: records by their codes, contacts by an address or their name. */
export async function namedInRules(deps: Deps, grant: TrayGrant, texts: readonly string[]) {
  const records = await recordsByCodes(deps.db, grant, [...new Set(texts.map((text) => text.trim().toUpperCase()))]);
  const addresses = texts.flatMap((text) => readEmailAddress(text) ?? []);
  const contacts = addresses.length === 0 ? [] : await contactsWith(deps.db, grant.tray.id, addresses);
  const names = [...new Set(texts.map((text) => text.trim().toLowerCase()).filter((text) => text !== ""))];
  const byName = new Map((await contactsNamed(deps.db, grant.tray.id, names)).map((one) => [one.id, one]));
  return {
    record: (code: string) => records.find((one) => one.code === code)?.id ?? null,
    contact: (text: string) => {
      const written = text.trim().toLowerCase();
      const [only, ...more] = [...contacts, ...byName.values()].filter(
        ({ name, addresses: theirs }) => name.toLowerCase() === written || theirs.some((one) => one === written),
      );
      return more.every(({ id }) => id === only?.id) ? (only?.id ?? null) : null;
    },
  };
}

/** Rules as they are read and written: records by their codes, contacts by the address that they are written to. */
export async function rulesAsWritten<R extends Pick<Rule, "condition" | "exception" | "actions">>(
  deps: Deps,
  grant: TrayGrant,
  rules: readonly R[],
): Promise<R[]> {
  const named = namedBy(rules);
  const codes = new Map((await recordsByIds(deps.db, grant, named.records)).map(({ id, code }) => [id, code]));
  const contacts = named.contacts.length === 0 ? [] : await contactsByIds(deps.db, grant.tray.id, named.contacts);
  const written = new Map(contacts.map(({ id, name, addresses }) => [id, addresses[0] ?? name]));
  const to: Renaming = {
    // The editor has these to choose from.
    member: (id) => id,
    category: (id) => id,
    round: (id) => id,
    group: (id) => id,
    template: (id) => id,
    record: (id) => trustedId<RecordId>(codes.get(id) ?? ""),
    contact: (id) => trustedId<ContactId>(written.get(id) ?? ""),
  };
  return rules.map((rule) => renamed(rule, to));
}
