import { turnTaker } from "../../core/assigning/load";
import { inCharge } from "../../core/cover/covering";
import type { RuleMark } from "../../core/journal/rule-mark";
import { type BatchId, type ConversationId, type GroupId, type MemberId, trustedId } from "../../core/kernel/ids";
import { nextRound } from "../../core/rounds/round";
import { foundInWords, type RuleNames } from "../../core/rules/condition-in-words";
import { type Held, type RuleThatHolds, rulesThatHold } from "../../core/rules/examine-condition";
import { needsOf } from "../../core/rules/needs";
import { type Givable, planRule, type RuleOccasion } from "../../core/rules/plan-rules";
import { conditionsOf, type Rule, type RuleAction, type RuleActionKind } from "../../core/rules/rule";
import { workingDayAfter } from "../../core/worktime/working-hours";
import {
  filesBeforeSettling,
  groupsOf,
  hoursOfTray,
  lockGroups,
  membersWithRoles,
  type Tray,
} from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import { recordsByIds } from "../../storage/records/index";
import { ownersBefore, roundsOf } from "../../storage/rules/index";
import type { Listed } from "../../texts/said";
import type { Asking, Within } from "../base/deps";
import { cachedTimesOff, ruleIndexOf } from "../base/routing-cache";
import { writtenDown } from "../base/written-down";
import { type ConversationInHand, carryOut } from "../changes/change-conversations";
import { loadsOfThere } from "../changes/loads-of-there";
import { type ArrivedIn, type ArrivingMessage, arrived, arriving, testedAlone, testedWithAll } from "./rule-facts";
import { ruleNamesOf } from "./rule-names";

/** The rules of a tray that may be for a message that arrives; none for history, and for what we wrote elsewhere. */
export async function candidateRules(deps: Asking, tray: Tray, arrival: ArrivingMessage): Promise<readonly Rule[]> {
  const { message, isHistory, imported } = arrival;
  const isOurs = imported && message.from !== null && tray.addresses.includes(message.from.address);
  if (isHistory || isOurs) return [];
  return (await ruleIndexOf(deps, tray.id)).candidates(testedAlone(tray, arriving(arrival)));
}

/** The same for several, with what they give held until the transaction ends: before any conversation, as everybody does. */
export async function lockCandidateRules(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  batch: readonly ArrivingMessage[],
): Promise<(readonly Rule[])[]> {
  const all = await Promise.all(batch.map((arrival) => candidateRules({ ...deps, db: trx }, tray, arrival)));
  if (all.flat().some(({ actions }) => actions.some(({ kind }) => kind === "categorise")))
    await lockCategoriesForShare(trx);
  return all;
}

/** Of rules that may be for a message those that are, now that it is known where it went and whom it is from. */
export async function rulesFor(
  deps: Asking,
  tray: Tray,
  arrival: ArrivingMessage,
  candidates: readonly Rule[],
  where: ArrivedIn,
): Promise<RuleThatHolds[]> {
  if (candidates.length === 0) return [];
  const known = arrived(arrival, where);
  const needs = needsOf(candidates.flatMap(conditionsOf));
  const [tested] = await testedWithAll(deps, tray, needs, [known]);
  return tested === undefined ? [] : rulesThatHold(candidates, tested);
}

/**
 * Lets rules act on a conversation that is held, with the message that they are for in it, one after the other, each a step
 * of its own in the journal. True when one holds it back.
 */
export async function applyRules(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  given: ConversationInHand,
  occasion: RuleOccasion,
  rules: readonly RuleThatHolds[],
): Promise<boolean> {
  if (rules.length === 0) return false;
  const acting = rules.map(({ rule }) => rule);
  const givable = await givableIn(trx, deps, tray, acting);
  const names = await ruleNamesOf({ ...deps, db: trx }, tray, null, acting);
  let inHand = given;
  let isHeld = false;
  for (const { rule, held } of rules) {
    const had = await hadBeforeIn(trx, tray, [rule], [inHand.conversation.id]);
    const effects = planRule(rule, inHand.known, { ...givable, hadBefore: had(inHand.conversation.id) }, occasion);
    isHeld ||= effects.some(({ kind }) => kind === "held");
    const change = { ...inHand, effects, rule: markOf(rule, held, names) };
    const [changed] = await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), [change]);
    inHand = changed ?? inHand;
  }
  return isHeld;
}

/** The mark that a rule leaves on what it does, with what it found in the message. */
export function markOf({ id, name, version }: Rule, held: readonly Held[], names: RuleNames): RuleMark {
  const why: Listed = { all: held.map(({ test, found }) => foundInWords(test, found, names)), by: "comma" };
  return { id, name, why: writtenDown(why), ...(version === undefined ? {} : { version }) };
}

/** Who had the newest matter of the same person, or of the same record, before each of some conversations, where a rule asks for that. */
export async function hadBeforeIn(
  trx: Transaction,
  tray: Tray,
  rules: readonly Pick<Rule, "actions">[],
  ids: readonly ConversationId[],
): Promise<(id: ConversationId) => Givable["hadBefore"]> {
  const isAsked = rules.some(({ actions }) => actions.some(({ kind }) => kind === "assign-as-before"));
  // What it files is before it for whom it assigns to.
  const filed = rules.flatMap(({ actions }) => actions.flatMap((one) => (one.kind === "file" ? [one.recordId] : [])));
  const found = isAsked ? await ownersBefore(trx, tray.id, ids, filed) : new Map<ConversationId, never>();
  return (id) => (by) => found.get(id)?.[by] ?? null;
}

/** What there is for rules to give now, but for who had what before. */
export async function givableIn(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  rules: readonly Pick<Rule, "actions">[],
): Promise<Omit<Givable, "hadBefore">> {
  const actions = rules.flatMap((rule) => rule.actions);
  const isAny = (...kinds: readonly RuleActionKind[]) => actions.some(({ kind }) => kinds.includes(kind));
  const wanted = actions.flatMap((action) => (action.kind === "file" ? [action.recordId] : []));
  // Every message that a rule is for waits for what is looked up here.
  const categories = isAny("categorise") ? await categoriesOf(trx, tray.id) : [];
  const records = await recordsByIds(trx, null, [...new Set(wanted)]);
  const members = isAny("assign", "assign-in-turn", "assign-as-before", "follow", "follow-up", "tell")
    ? await membersWithRoles(trx, tray.id)
    : [];
  const rounds = isAny("hold") ? await roundsOf(trx, tray.id) : [];
  const hours =
    rounds.length > 0 || actions.some((action) => "workingDays" in action) ? await hoursOfTray(trx, tray) : null;
  const nextOf = await turnsIn(trx, deps, tray, actions);
  const given = new Set(categories.filter(({ retired }) => !retired).map(({ id }) => id));
  const filed = new Set(records.filter(({ closed }) => !closed).map(({ id }) => id));
  const looking = new Set(members.map(({ id }) => id));
  const deciding = new Set(members.filter(({ role }) => role !== "reader").map(({ id }) => id));
  const now = deps.now();
  const timesOff = await cachedTimesOff({ ...deps, db: trx });
  return {
    isCategory: (id) => given.has(id),
    isRecord: (id) => filed.has(id),
    roundName: (id) => {
      const round = rounds.find((one) => one.id === id);
      return round !== undefined && hours !== null && nextRound(round, now, hours) !== null ? round.name : null;
    },
    isMember: (id) => looking.has(id),
    nextOf,
    inCharge: (id) => {
      const who = inCharge(id, { trayId: tray.id, recordIds: [] }, now, timesOff) ?? id;
      return deciding.has(who) ? who : null;
    },
    afterWorkingDays: (days) => (hours === null ? null : workingDayAfter(now, days, hours)),
    newId: deps.newId,
    filesFirst: isAny("settle") && (await filesBeforeSettling(trx, tray)),
  };
}

// Who of each group that is named takes the next one, one after the other.
async function turnsIn(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  actions: readonly RuleAction[],
): Promise<Givable["nextOf"]> {
  const named = new Set(actions.flatMap((action) => (action.kind === "assign-in-turn" ? [action.groupId] : [])));
  if (named.size === 0) return () => null;
  await lockGroups(trx, [...named]);
  const groups = (await groupsOf(trx, { tray })).filter(({ id }) => named.has(id));
  const turns = new Map<
    GroupId,
    { readonly loads: ReadonlyMap<MemberId, unknown>; readonly next: () => MemberId | null }
  >();
  for (const group of groups) {
    const loads = await loadsOfThere({ ...deps, db: trx }, { tray }, group);
    turns.set(group.id, { loads, next: turnTaker(loads) });
  }
  return (id, owner) => {
    const turn = turns.get(id);
    // What one of them has already is where it should be.
    return owner !== null && turn?.loads.has(owner) ? owner : (turn?.next() ?? null);
  };
}
