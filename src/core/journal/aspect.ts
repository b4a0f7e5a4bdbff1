import { partKey } from "../records/filing-means";
import type { Effect, EffectKind, JournalEntry } from "./entry";

/** What an effect is about: effects of one aspect overwrite each other, those of different ones never meet. */
export type Aspect =
  | "owner"
  | "urgency"
  | "standing"
  | "fact"
  | `category:${string}`
  | `record:${string}`
  | `particulars:${string}`
  | `part:${string}`
  | `follow-up:${string}`
  | `follower:${string}`
  | `expectation:${string}`
  | "expiry"
  | `acknowledged:${string}`
  | `reminders:${string}`
  | "note";

type EffectOf<Kind extends EffectKind> = Extract<Effect, { readonly kind: Kind }>;

// What happened and cannot be taken back: found out by the tray, or done outside of the conversation.
const fact = () => "fact" as const;
const standing = () => "standing" as const;
const note = () => "note" as const;
const category = ({ categoryId }: EffectOf<"categorised" | "uncategorised">) => `category:${categoryId}` as const;
const record = ({ recordId }: EffectOf<"filed" | "unfiled">) => `record:${recordId}` as const;
const filedPart = (effect: EffectOf<"part-filed" | "part-unfiled">) =>
  `record:${effect.recordId}/${partKey(effect)}` as const;
const follower = ({ memberId }: EffectOf<"followed" | "unfollowed">) => `follower:${memberId}` as const;
const followUp = ({ followUpId }: EffectOf<"follow-up-set" | "follow-up-done" | "follow-up-cleared">) =>
  `follow-up:${followUpId}` as const;
const otherConversation = ({ conversationId }: EffectOf<"joined" | "split-off">) => `part:${conversationId}` as const;

/** By kind. There is no default: what a new kind overwrites, and by what it is overwritten, has to be said. */
const ASPECTS: { readonly [Kind in EffectKind]: (effect: EffectOf<Kind>) => Aspect } = {
  assigned: () => "owner",
  categorised: category,
  uncategorised: category,
  filed: record,
  unfiled: record,
  "particulars-set": ({ recordId }) => `particulars:${recordId}`,
  "part-filed": filedPart,
  "part-unfiled": filedPart,
  kept: standing,
  settled: standing,
  binned: standing,
  restored: standing,
  junked: standing,
  rested: standing,
  "rest-ended": fact,
  held: standing,
  "let-in": standing,
  expected: standing,
  withdrawn: standing,
  extended: ({ expectationId }) => `expectation:${expectationId}`,
  "also-awaited": fact,
  acknowledged: ({ messageId }) => `acknowledged:${messageId}`,
  "expiry-set": () => "expiry",
  lapsed: fact,
  "turn-set": standing,
  "send-failed": fact,
  "list-left": fact,
  noted: note,
  "note-edited": note,
  followed: follower,
  unfollowed: follower,
  told: fact,
  "report-asked": fact,
  "reminders-begun": ({ expectationId }) => `reminders:${expectationId}`,
  "draft-handed": fact,
  "draft-returned": fact,
  "draft-given-up": fact,
  "urgency-set": () => "urgency",
  "follow-up-set": followUp,
  "follow-up-done": followUp,
  "follow-up-cleared": followUp,
  joined: otherConversation,
  "split-off": otherConversation,
};

/** The kinds that are nobody's decision. */
export const FACT_KINDS: readonly EffectKind[] = (Object.keys(ASPECTS) as EffectKind[]).filter(
  (kind) => ASPECTS[kind] === fact,
);

/** The aspect of a conversation that an effect sets. A fact is not anybody's decision and stands for itself. */
export function aspectOf<Kind extends EffectKind>(effect: EffectOf<Kind>): Aspect {
  // The table's type ties each entry to its effect; an index by a union loses that tie.
  const aspect = ASPECTS[effect.kind as Kind] as (effect: EffectOf<Kind>) => Aspect;
  return aspect(effect);
}

/** True for what can be taken back: a person's decision, what a rule did, or what the tray joined; never a fact. */
export function canBeUndone({ by, rule, effect }: Pick<JournalEntry, "by" | "rule" | "effect">): boolean {
  return aspectOf(effect) !== "fact" && (by !== null || rule !== undefined || effect.kind === "joined");
}
