import type { ConversationId, MessageId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type RuleProblems, whichProblems } from "../../core/rules/check-rule";
import { foundInWords } from "../../core/rules/condition-in-words";
import { whyRuleHolds } from "../../core/rules/examine-condition";
import { needsOf, readsHeaders } from "../../core/rules/needs";
import type { Rule } from "../../core/rules/rule";
import type { StandingKind } from "../../core/standing/standing";
import type { TrayGrant } from "../../storage/access/index";
import { type ArrivedMessage, beginningsOf, newestArrivals } from "../../storage/rules/index";
import type { Wording } from "../../texts/said";
import type { Deps } from "../base/deps";
import { type KnownMessage, testedWithAll } from "./rule-facts";
import { ruleNamesOf } from "./rule-names";

/** On how many of the newest messages a rule is tried. */
const TRIED_ON = 1_000;

/** What a rule would have been for. */
export type RuleTrial<Why = Wording> = {
  readonly of: number;
  /** When the oldest of them came; null where there is none. */
  readonly since: Instant | null;
  readonly matches: readonly {
    readonly id: MessageId;
    readonly conversationId: ConversationId;
    readonly standing: StandingKind;
    readonly at: Instant;
    readonly who: string;
    readonly subject: string;
    readonly why: Why;
  }[];
};

/** For which of the newest messages of a tray a rule would have been, the newest first. */
export async function tryRule(
  deps: Deps,
  grant: TrayGrant,
  rule: Pick<Rule, "condition" | "exception">,
): Promise<Result<RuleTrial, RuleProblems>> {
  const { condition = [], exception = [] } = whichProblems(rule);
  if (condition.length + exception.length > 0) return err({ condition, exception });
  const conditions = rule.exception === null ? [rule.condition] : [rule.condition, rule.exception];
  const sample = await newestArrivals(deps.db, grant, TRIED_ON);
  const known = readsHeaders(conditions)
    ? await withHeaders(deps, sample)
    : sample.map((one) => ({ ...one, ...NO_HEADERS }));
  const tested = await testedWithAll(deps, grant.tray, needsOf(conditions), known);
  const names = await ruleNamesOf(deps, grant.tray, grant, [{ ...rule, actions: [] }]);
  const matches = sample.flatMap((message, place) => {
    const facts = tested[place];
    const held = facts === undefined ? null : whyRuleHolds(rule, facts);
    if (held === null) return [];
    const { id, conversationId, subject, fromName, from, receivedAt: at } = message;
    const why = { all: held.map(({ test, found }) => foundInWords(test, found, names)), by: "comma" } as const;
    const { standing } = message.conversation;
    return [{ id, conversationId, standing, at, who: fromName || (from ?? ""), subject, why }];
  });
  return ok({ of: sample.length, since: sample.at(-1)?.receivedAt ?? null, matches });
}

const NO_HEADERS = { headers: [], addressFields: new Map<string, readonly string[]>() } as const;

// Headers are kept in the messages as they came only.
async function withHeaders(deps: Deps, sample: readonly ArrivedMessage[]): Promise<KnownMessage[]> {
  const beginnings = await beginningsOf(
    deps.db,
    sample.map(({ id }) => id),
  );
  const parsed = await deps.aside.parseMany(sample.map(({ id }) => beginnings.get(id) ?? new Uint8Array()));
  return sample.map((one, at) => {
    const { headers, addressFields } = parsed[at] ?? NO_HEADERS;
    return { ...one, headers, addressFields };
  });
}
