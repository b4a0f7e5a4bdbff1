import type { EmailAddress } from "../kernel/email-address";
import type { CategoryId, GroupId, MemberId, RecordId, RoundId, RuleId, TemplateId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { ReminderStyle } from "../kernel/reminder-style";
import type { Urgency } from "../kernel/urgency";
import type { FieldValues } from "../records/filing-field";
import { type Condition, type Test, testsOf, withTests } from "./condition";

/** One thing that a rule does to the conversation that a message is in. */
export type RuleAction =
  | { readonly kind: "categorise"; readonly categoryId: CategoryId; readonly give: boolean }
  /** `fields` are the particulars that its record asks for. */
  | { readonly kind: "file"; readonly recordId: RecordId; readonly fields?: FieldValues }
  | { readonly kind: "assign"; readonly ownerId: MemberId }
  | { readonly kind: "urgency"; readonly urgency: Urgency }
  | { readonly kind: "settle" }
  | { readonly kind: "bin" }
  | { readonly kind: "junk" }
  /** Until the office opens after so many working days, or somebody writes. */
  | { readonly kind: "rest"; readonly workingDays: number }
  /** Out of sight until the next hour of a round. */
  | { readonly kind: "hold"; readonly roundId: RoundId }
  /** For the owner, where nobody is named. */
  | {
      readonly kind: "follow-up";
      readonly workingDays: number;
      readonly text: string;
      readonly forMember: MemberId | null;
    }
  /** An answer of those who wrote. */
  | { readonly kind: "expect"; readonly workingDays: number }
  /** It stops to matter after so many working days. */
  | { readonly kind: "expire"; readonly workingDays: number }
  | { readonly kind: "note"; readonly text: string }
  | { readonly kind: "follow"; readonly memberId: MemberId }
  /** To whoever of a group has least to do and is there. */
  | { readonly kind: "assign-in-turn"; readonly groupId: GroupId }
  /** To whoever had the newest matter of this person, or of this record, before. */
  | { readonly kind: "assign-as-before"; readonly by: "person" | "record" }
  | { readonly kind: "tell"; readonly memberId: MemberId }
  /** Reminds whoever is awaited, in the owner's name, until they answer. */
  | ({ readonly kind: "remind" } & ReminderStyle)
  /** Of the mail systems on the way of what we send (RFC 3461). */
  | { readonly kind: "ask-report" }
  /** By itself (RFC 3834): once a person in so many days; null answers each time. */
  | { readonly kind: "answer"; readonly text: string; readonly days: number | null }
  | { readonly kind: "answer-with"; readonly templateId: TemplateId; readonly days: number | null }
  /** To somebody outside: as a part of a message of ours (RFC 2046 5.2.1), or as it is (RFC 5322 3.6.6). */
  | { readonly kind: "forward"; readonly to: EmailAddress }
  | { readonly kind: "redirect"; readonly to: EmailAddress };

export type RuleActionKind = RuleAction["kind"];
export type RuleActionOf<Kind extends RuleActionKind> = Extract<RuleAction, { readonly kind: Kind }>;

/** At what moments rules are asked: when a message comes, when one of ours went out, and while time passes over what is open. */
export const RULE_MOMENTS = ["arrival", "sending", "passing"] as const;
export type RuleMoment = (typeof RULE_MOMENTS)[number];

/** When a rule is asked, and from when until when; null for always before, and for without an end. */
export type RuleTimes = { readonly moment: RuleMoment; readonly from: Instant | null; readonly until: Instant | null };

export const ON_ARRIVAL: RuleTimes = { moment: "arrival", from: null, until: null };

/** What a tray does by itself when a message comes. Rules are asked in their order; each that is for a message adds to what the ones before it did. */
export type Rule = {
  readonly id: RuleId;
  readonly name: string;
  readonly isOn: boolean;
  readonly condition: Condition;
  /** Where this holds, the rule does nothing; null for no exception. */
  readonly exception: Condition | null;
  /** In the order in which they are done. */
  readonly actions: readonly RuleAction[];
  /** No rule after this one is asked about a message that it is for. */
  readonly isLast: boolean;
  /** Absent for a rule that is always asked when a message comes. */
  readonly times?: RuleTimes;
  /** Whose it is, where it is a member's own: what it does touches nobody else. Absent for a rule of the tray. */
  readonly memberId?: MemberId;
  /** Whether it is asked in all trays, after their own rules; absent for one that is asked in its own only. */
  readonly isEverywhere?: boolean;
  /** Which of its versions this is, from 1; absent for a rule that is not kept. */
  readonly version?: number;
};

/** Whether a rule is asked at all at this moment. */
export function isInForce({ times = ON_ARRIVAL }: Pick<Rule, "times">, moment: RuleMoment, now: Instant): boolean {
  const { from, until } = times;
  return times.moment === moment && (from === null || from <= now) && (until === null || now < until);
}

/** What a member's own rule can do. */
export const OWN_ACTIONS: readonly RuleActionKind[] = ["tell", "follow", "follow-up"];

/** Whether no rule of the tray is asked after this one, where it holds: nobody's own rule keeps the tray's from that. */
export function endsAsking({ isLast, memberId }: Pick<Rule, "isLast" | "memberId">): boolean {
  return isLast && memberId === undefined;
}

/** What a rule asks for: its condition, and its exception where it has one. */
export function conditionsOf({ condition, exception }: Pick<Rule, "condition" | "exception">): Condition[] {
  return exception === null ? [condition] : [condition, exception];
}

/**
 * A rule in which another category stands for one that ended, or none (null). One that does nothing any more, or asks for
 * what is no more, is off.
 */
export function withCategoryReplaced<R extends Pick<Rule, "actions" | "isOn" | "condition" | "exception">>(
  rule: R,
  from: CategoryId,
  to: CategoryId | null,
): R {
  const replaced = rule.actions.flatMap((action): RuleAction[] => {
    if (action.kind !== "categorise" || action.categoryId !== from) return [action];
    return to === null ? [] : [{ ...action, categoryId: to }];
  });
  const actions = [...new Map(replaced.map((action) => [JSON.stringify(action), action])).values()];
  const { condition, exception } = rule;
  if (to === null) {
    const asksForIt = conditionsOf(rule).some((one) => [...testsOf(one)].some((test) => namesCategory(test, from)));
    return { ...rule, actions, isOn: rule.isOn && actions.length > 0 && !asksForIt };
  }
  const other = (test: Test) => testWithCategory(test, from, to);
  return {
    ...rule,
    actions,
    condition: withTests(condition, other),
    exception: exception === null ? null : withTests(exception, other),
  };
}

function namesCategory(test: Test, id: CategoryId): boolean {
  if (test.kind === "category") return test.of.includes(id);
  return test.kind === "address" && test.of.some((one) => one.kind === "contact-category" && one.categoryId === id);
}

function testWithCategory(test: Test, from: CategoryId, to: CategoryId): Test {
  const replaced = (id: CategoryId) => (id === from ? to : id);
  if (test.kind === "category") return { ...test, of: [...new Set(test.of.map(replaced))] };
  if (test.kind !== "address") return test;
  const of = test.of.map((one) =>
    one.kind === "contact-category" ? { ...one, categoryId: replaced(one.categoryId) } : one,
  );
  return { ...test, of };
}
