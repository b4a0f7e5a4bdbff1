import type { ConversationId, MessageId, RuleId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type RuleProblems, whichProblems } from "../../core/rules/check-rule";
import { compareRule } from "../../core/rules/compare-rule";
import { foundInWords } from "../../core/rules/condition-in-words";
import { type Held, whyRuleHolds } from "../../core/rules/examine-condition";
import { NOTHING_NAMED } from "../../core/rules/named-by";
import { needsOf, readsRaw } from "../../core/rules/needs";
import { conditionsOf, ON_ARRIVAL, type Rule } from "../../core/rules/rule";
import type { TestedMessage } from "../../core/rules/test-message";
import type { StandingKind } from "../../core/standing/standing";
import { countByMonth, type MonthCount } from "../../core/time/count-by-month";
import type { TrayGrant } from "../../storage/access/index";
import {
  type ArrivalPlace,
  type ArrivedMessage,
  beginningsOf,
  newestSample,
  rulesSeenBy,
} from "../../storage/rules/index";
import type { Said, Wording } from "../../texts/said";
import type { Asking, Deps } from "../base/deps";
import { type KnownMessage, otherTextsOf, testedWithAll } from "./rule-facts";
import { ruleNamesOf } from "./rule-names";

/** On how many messages a rule is tried at a time, the newest first. */
const TRIED_AT_ONCE = 1_000;
const NAMED = 50;

/** A message that a rule would have been for. */
type Tried = {
  readonly id: MessageId;
  readonly conversationId: ConversationId;
  readonly standing: StandingKind;
  readonly at: Instant;
  readonly who: string;
  readonly subject: string;
  /** What of it matched. */
  readonly why: Wording;
  /** What people did instead of what the rule would do; null where nothing is against it. */
  readonly otherwise: Said | null;
};

/** What a rule would have been for among some of the messages that came to a tray. */
export type RuleTrial = {
  /** On how many it was tried. */
  readonly of: number;
  /** Where the next ones begin; null where it was tried on all. */
  readonly next: ArrivalPlace | null;
  readonly count: number;
  /** How many of those people treated as the rule would, how many otherwise, and with how many nobody did any of it. */
  readonly same: number;
  readonly otherwise: number;
  readonly fresh: number;
  /** By the months of the tray's calendar, `YYYY-MM`, the earliest first. */
  readonly months: readonly MonthCount[];
  /** The newest of them, and the newest that people treated otherwise. */
  readonly newest: readonly Tried[];
  readonly against: readonly Tried[];
  /** The other rules that are for some of them. */
  readonly others: readonly {
    readonly id: RuleId;
    readonly name: string;
    readonly count: number;
    readonly isLast: boolean;
    /** Whether it is asked before this one. */
    readonly isBefore: boolean;
  }[];
};

/** Tries a rule on messages that came to a tray: the newest, or those before a place. Nothing is changed by it. */
export async function tryRule(
  deps: Deps,
  grant: TrayGrant,
  rule: Pick<Rule, "condition" | "exception" | "actions" | "times"> & { readonly id: RuleId | null },
  before: ArrivalPlace | null = null,
): Promise<Result<RuleTrial, RuleProblems>> {
  const problems = whichProblems(rule);
  if (Object.keys(problems).length > 0) return err(problems);
  const { moment } = rule.times ?? ON_ARRIVAL;
  const rules = await rulesSeenBy(deps.db, grant);
  const others = rules.filter(
    ({ id, isOn, times }) => isOn && id !== rule.id && (times ?? ON_ARRIVAL).moment === moment,
  );
  const sample = await newestSample(deps.db, grant, moment, before, TRIED_AT_ONCE);
  const tested = await testedSample(deps, grant, [rule, ...others], sample);
  const found = sample.flatMap((message, place): Found[] => {
    const facts = tested[place];
    const held = facts === undefined ? null : whyRuleHolds(rule, facts);
    return facts === undefined || held === null ? [] : [{ message, facts, held }];
  });
  const tried = await triedOf(deps, grant, rule, found);
  const last = sample.length < TRIED_AT_ONCE ? undefined : sample.at(-1);
  const own = rules.findIndex(({ id }) => id === rule.id);
  return ok({
    of: sample.length,
    next: last === undefined ? null : { at: last.receivedAt, id: last.id },
    ...countsOf(tried),
    months: countByMonth(
      found.map(({ message }) => message.receivedAt),
      grant.tray.timeZone,
    ),
    newest: tried.slice(0, NAMED).map(({ shown }) => shown),
    against: tried.flatMap(({ shown }) => (shown.otherwise === null ? [] : [shown])).slice(0, NAMED),
    others: others.flatMap(({ id, name, isLast, ...other }) => {
      const count = found.filter(({ facts }) => whyRuleHolds(other, facts) !== null).length;
      const isBefore = own < 0 || rules.findIndex((one) => one.id === id) < own;
      return count === 0 ? [] : [{ id, name, count, isLast, isBefore }];
    }),
  });
}

type Found = { readonly message: ArrivedMessage; readonly facts: TestedMessage; readonly held: readonly Held[] };
type Judged = { readonly is: "same" | "otherwise" | "new"; readonly shown: Tried };

async function triedOf(
  deps: Deps,
  grant: TrayGrant,
  rule: Pick<Rule, "condition" | "exception" | "actions">,
  found: readonly Found[],
): Promise<Judged[]> {
  // What is named beside the rule's own things stands in the conversations that it would have been for.
  const left = found.map(({ message }) => message.conversation);
  const names = await ruleNamesOf(deps, grant.tray, grant, [rule], {
    ...NOTHING_NAMED,
    members: left.flatMap(({ ownerId }) => ownerId ?? []),
    categories: left.flatMap(({ categoryIds }) => categoryIds),
    records: left.flatMap(({ recordIds }) => recordIds),
  });
  return found.map(({ message, held }) => {
    const { id, conversationId, subject, fromName, from, receivedAt: at, conversation } = message;
    const compared = compareRule(rule.actions, conversation, names);
    const why = { all: held.map((one) => foundInWords(one.test, one.found, names)), by: "comma" } as const;
    const who = fromName || (from ?? "");
    const otherwise = compared.is === "otherwise" ? compared.how : null;
    return {
      is: compared.is,
      shown: { id, conversationId, standing: conversation.standing, at, who, subject, why, otherwise },
    };
  });
}

function countsOf(tried: readonly Judged[]): Pick<RuleTrial, "count" | "same" | "otherwise" | "fresh"> {
  const count = (is: Judged["is"]) => tried.filter((one) => one.is === is).length;
  return { count: tried.length, same: count("same"), otherwise: count("otherwise"), fresh: count("new") };
}

/** Stored messages ready to be asked about by some rules. */
export async function testedSample(
  deps: Asking,
  { tray }: Pick<TrayGrant, "tray">,
  rules: readonly Pick<Rule, "condition" | "exception">[],
  sample: readonly ArrivedMessage[],
): Promise<TestedMessage[]> {
  const conditions = rules.flatMap(conditionsOf);
  const known = readsRaw(conditions) ? await asTheyCame(deps, sample) : sample.map((one) => ({ ...one, ...NOT_READ }));
  return testedWithAll(deps, tray, needsOf(conditions), known);
}

const NOT_READ = {
  headers: [],
  addressFields: new Map<string, readonly string[]>(),
  otherTexts: () => [],
} as const;

// What is kept in the messages as they came only.
async function asTheyCame(deps: Asking, sample: readonly ArrivedMessage[]): Promise<KnownMessage[]> {
  const beginnings = await beginningsOf(
    deps.db,
    sample.map(({ id }) => id),
  );
  const parsed = await deps.aside.parseMany(sample.map(({ id }) => beginnings.get(id) ?? new Uint8Array()));
  return sample.map((one, at) => {
    const message = parsed[at];
    if (message === undefined) return { ...one, ...NOT_READ };
    const { headers, addressFields } = message;
    return { ...one, headers, addressFields, otherTexts: otherTextsOf(message) };
  });
}
