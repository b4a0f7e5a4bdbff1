import type { ConversationId, MessageId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { TextMatch, TextPlace } from "../../core/rules/condition";
import type { RuleNames } from "../../core/rules/condition-in-words";
import { type ExplainedRule, explainRules } from "../../core/rules/explain-rules";
import { type MarkedPiece, markedText } from "../../core/rules/marked-text";
import type { Rule } from "../../core/rules/rule";
import type { StandingKind } from "../../core/standing/standing";
import type { TrayGrant } from "../../storage/access/index";
import { arrivalOf, rulesSeenBy, stoppedRules } from "../../storage/rules/index";
import type { Deps } from "../base/deps";
import { ruleNamesOf } from "./rule-names";
import { testedSample } from "./try-rule";

/** What the rules of a tray make of a message, and the message with what they found in it marked. */
export type ExplainedMessage = {
  readonly conversationId: ConversationId;
  readonly standing: StandingKind;
  readonly who: string;
  readonly at: Instant;
  readonly subject: readonly MarkedPiece[];
  readonly text: readonly MarkedPiece[];
  readonly rules: readonly ExplainedRule<Rule>[];
  readonly names: RuleNames;
};

const MAX_SHOWN_CHARACTERS = 20_000;

/** Asks each rule of a tray, as it is now, about a message that came to it; null where there is no such message. */
export async function explainMessage(deps: Deps, grant: TrayGrant, id: MessageId): Promise<ExplainedMessage | null> {
  const arrived = await arrivalOf(deps.db, grant.tray.id, id);
  if (arrived === null) return null;
  const all = await rulesSeenBy(deps.db, grant);
  const [tested] = await testedSample(deps, grant, all, [arrived]);
  const stopped = await stoppedRules(deps.db, all);
  const rules = tested === undefined ? [] : explainRules(all, tested, (rule) => stopped.has(rule), deps.now());
  const { conversationId, conversation, from, fromName, receivedAt, subject, ownText } = arrived;
  return {
    conversationId,
    standing: conversation.standing,
    who: fromName || (from ?? ""),
    at: receivedAt,
    subject: markedText(subject, foundIn(rules, ["subject"])),
    text: markedText(ownText.slice(0, MAX_SHOWN_CHARACTERS), foundIn(rules, ["text", "body", "parts"])),
    rules,
    names: await ruleNamesOf(deps, grant.tray, grant, all),
  };
}

// What the rules that are for it looked for in a place, and found.
function foundIn(rules: readonly ExplainedRule<Rule>[], places: readonly TextPlace[]): TextMatch[] {
  return rules
    .filter(({ verdict }) => verdict === "forIt")
    .flatMap(({ held }) => held)
    .flatMap(({ test }) => (test.kind === "text" && places.includes(test.where) ? [test.match] : []));
}
