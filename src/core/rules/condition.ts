import type { EmailAddress } from "../kernel/email-address";
import type { CategoryId, ContactId, MemberId, RecordId, TemplateId } from "../kernel/ids";
import type { Urgency } from "../kernel/urgency";
import type { MessageKind } from "../message/mail-message";
import type { StandingKind } from "../standing/standing";

/** What a message has to be like: one test, or several together. */
export type Condition = ConditionGroup | Test;

/** All hold, at least one does, or none does. A group of all without any holds for every message, one of any for none. */
export type ConditionGroup = { readonly kind: "all" | "any" | "none"; readonly of: readonly Condition[] };

/** How a text is compared; several values are alternatives. */
export type TextMatch = {
  /**
   * `words` are found as wholes, wherever each stands, without case and accents; `phrase` the same after one another.
   * `is` and `contains` compare letters without case; `like` has `*` for any and `?` for one of them, `\` before a plain
   * one (RFC 5228 2.7.1). `pattern` is a regular expression of RE2 that is found somewhere, without case.
   */
  readonly how: "words" | "phrase" | "is" | "contains" | "like" | "pattern";
  readonly values: readonly string[];
  /** Case counts (RFC 4790 9.3, `i;octet`); left out where it does not. */
  readonly isExact?: true;
};

/** How a value, or how many there are of it, is ordered beside another (RFC 5231). */
export const RELATIONS = ["gt", "ge", "lt", "le", "eq", "ne"] as const;
export type Relation = (typeof RELATIONS)[number];

/** How a field is compared: as a text, by its order, by how many there are, or by being there. */
export type FieldMatch =
  | TextMatch
  | {
      readonly how: "value";
      readonly relation: Relation;
      readonly isNumber: boolean;
      readonly values: readonly string[];
    }
  | { readonly how: "count"; readonly relation: Relation; readonly values: readonly string[] }
  | { readonly how: "exists" };

/** Whom an address belongs to. */
export type AddressMatch =
  | { readonly kind: "address"; readonly address: EmailAddress }
  /** Everybody there, not those of domains below it. */
  | { readonly kind: "domain"; readonly domain: string }
  | { readonly kind: "contact"; readonly contactId: ContactId }
  | { readonly kind: "contact-category"; readonly categoryId: CategoryId }
  | { readonly kind: "organisation"; readonly name: string }
  | { readonly kind: "colleague" }
  /** Somebody who wrote to us before, or to whom we did. */
  | { readonly kind: "known" }
  | { readonly kind: "unknown" };

export const ADDRESS_PLACES = ["from", "to", "cc", "recipient", "any"] as const;
/** Which addresses of a message: `recipient` is To or Cc, `any` the sender too. */
export type AddressPlace = (typeof ADDRESS_PLACES)[number];

export const TEXT_PLACES = ["subject", "text", "body", "parts", "file"] as const;
/**
 * `text` is what a message says itself, `body` all of its text with what it quotes, `parts` each part of it that is text,
 * files and other forms of the same included (RFC 5173 5.3).
 */
export type TextPlace = (typeof TEXT_PLACES)[number];

/** The part of an address (RFC 5228 2.7.4, and RFC 5233 for what stands before and behind a plus). */
export const ADDRESS_PARTS = ["all", "localpart", "domain", "user", "detail"] as const;
export type AddressPart = (typeof ADDRESS_PARTS)[number];

/** One thing that is true of a message or of the conversation that it is in. */
export type Test =
  /** Every message, which has to be asked for. */
  | { readonly kind: "every" }
  | { readonly kind: "address"; readonly where: AddressPlace; readonly of: readonly AddressMatch[] }
  /** Direct: one of our addresses is in To; copied: only in Cc; list: it came through one. */
  | { readonly kind: "reach"; readonly of: readonly Reach[] }
  | { readonly kind: "message-kind"; readonly of: readonly MessageKind[] }
  /** The first of its conversation, or an answer in it. */
  | { readonly kind: "opening"; readonly isFirst: boolean }
  | { readonly kind: "text"; readonly where: TextPlace; readonly match: TextMatch }
  /** Lists by the identifier of RFC 2919, in lower case. */
  | { readonly kind: "list"; readonly of: readonly string[] }
  /** One attachment is all of this; nothing more named: there is any. Sizes in bytes. */
  | {
      readonly kind: "attachment";
      /** `type/subtype`, or `type/*`. */
      readonly types?: readonly string[];
      readonly name?: TextMatch;
      readonly over?: number;
      readonly under?: number;
    }
  /** The whole message as it came, in bytes. */
  | { readonly kind: "size"; readonly over?: number; readonly under?: number }
  /** Any field of these names, in lower case. */
  | { readonly kind: "header"; readonly names: readonly string[]; readonly match: FieldMatch }
  /** A part of any address in fields of these names; `envelope-from` and `envelope-to` are those of RFC 5321. */
  | {
      readonly kind: "address-part";
      readonly names: readonly string[];
      readonly part: AddressPart;
      readonly match: FieldMatch;
    }
  /** The sender is proved to be who it says. */
  | { readonly kind: "verified"; readonly is: boolean }
  /** It arrives while the office is open. */
  | { readonly kind: "open"; readonly is: boolean }
  /** It arrives on one of these days of the week: 0 for Monday to 6 for Sunday. */
  | { readonly kind: "weekday"; readonly of: readonly number[] }
  /** It arrives between two days, both included (ISO 8601); null is open. */
  | { readonly kind: "days"; readonly from: string | null; readonly until: string | null }
  /** A part of a date (RFC 5260): of its arrival, or of a field; zone as in `+0100`, null for the office's own. */
  | {
      readonly kind: "date-part";
      readonly field: string | null;
      readonly zone: string | null;
      readonly part: string;
      readonly match: FieldMatch;
    }
  /** The code of one of these records stands in it; none named: of any. */
  | { readonly kind: "reference"; readonly of: readonly RecordId[] }
  /** One of ours that began with one of these. */
  | { readonly kind: "template"; readonly of: readonly TemplateId[] }
  | { readonly kind: "standing"; readonly of: readonly StandingKind[] }
  /** Null for nobody. */
  | { readonly kind: "owner"; readonly of: readonly (MemberId | null)[] }
  | { readonly kind: "owner-away" }
  | { readonly kind: "category"; readonly of: readonly CategoryId[] }
  | { readonly kind: "record"; readonly of: readonly RecordId[] }
  | { readonly kind: "urgency"; readonly of: readonly Urgency[] }
  /** The conversation began, or stands where it does, for at least so many working hours. */
  | { readonly kind: "age"; readonly hours: number }
  | { readonly kind: "standing-for"; readonly hours: number }
  /** An answer, a follow-up or what it is about falls due within so many working hours, or did. */
  | { readonly kind: "due"; readonly hours: number };

export const REACHES = ["direct", "copied", "list"] as const;
export type Reach = (typeof REACHES)[number];

export type TestKind = Test["kind"];
export type TestOf<Kind extends TestKind> = Extract<Test, { readonly kind: Kind }>;

/** Whether a condition is several together. */
export function isGroup(condition: Condition): condition is ConditionGroup {
  return condition.kind === "all" || condition.kind === "any" || condition.kind === "none";
}

/** Every message. */
export const EVERY_MESSAGE: Test = { kind: "every" };

/** The same without groups that join nothing: all or any of one thing is that. */
export function withoutLoneGroups(condition: Condition): Condition {
  if (!isGroup(condition)) return condition;
  const of = condition.of.map(withoutLoneGroups);
  const [only] = of;
  return condition.kind !== "none" && of.length === 1 && only !== undefined ? only : { ...condition, of };
}

/** The tests of a condition, in the order in which they are read. */
export function* testsOf(condition: Condition): Generator<Test> {
  if (!isGroup(condition)) yield condition;
  else for (const one of condition.of) yield* testsOf(one);
}

/** A condition with other tests in the places of its own. */
export function withTests(condition: Condition, other: (test: Test) => Test): Condition {
  if (!isGroup(condition)) return other(condition);
  return { ...condition, of: condition.of.map((one) => withTests(one, other)) };
}
