import { standingTexts } from "../../texts/en/standing";
import { type Said, saidOf } from "../../texts/said";
import type { Kept } from "../../texts/stored";
import type { EmailAddress } from "../kernel/email-address";
import type { FollowUpId, MemberId, MessageId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";

const said = saidOf(standingTexts);

/** Where a conversation is. The first five are the flow, in the order in which work flows. */
export const FLOW = ["to-sort", "our-move", "waiting", "resting", "settled"] as const;
export const STANDINGS = [...FLOW, "held", "bin", "junk"] as const;
export type StandingKind = (typeof STANDINGS)[number];

/** The name of a standing on screen. */
export const STANDING_NAMES: Readonly<Record<StandingKind, Said>> = {
  "to-sort": said("standing.toSort"),
  "our-move": said("standing.ourMove"),
  waiting: said("standing.waitingForReply"),
  resting: said("standing.resting"),
  settled: said("standing.settled"),
  held: said("standing.held"),
  bin: said("standing.bin"),
  junk: said("standing.junk"),
};

/** True for the name of a standing as it appears in a URL. */
export function isStandingKind(text: string): text is StandingKind {
  return (STANDINGS as readonly string[]).includes(text);
}

/** The one reason of a standing: what happened, as data; `reasonInWords` says it. */
export type Reason =
  | { readonly kind: "arrived"; readonly who: string }
  | { readonly kind: "replied"; readonly who: string; readonly messageId: MessageId }
  | { readonly kind: "bounced"; readonly recipients: readonly EmailAddress[] }
  | { readonly kind: "not-sent"; readonly detail: Kept }
  | { readonly kind: "taken"; readonly by: MemberId | null; readonly ownerId: MemberId }
  | { readonly kind: "kept"; readonly by: MemberId | null }
  | {
      readonly kind: "asked";
      readonly by: MemberId | null;
      /** When our message went that asked; null when the expectation was made by hand later. */
      readonly askedAt: Instant | null;
      readonly until: Instant | null;
    }
  | { readonly kind: "withdrawn"; readonly by: MemberId | null }
  | {
      readonly kind: "rested";
      readonly by: MemberId | null;
      readonly until: Instant | null;
      readonly evenIfAnswered?: boolean;
    }
  | {
      readonly kind: "rest-ended";
      readonly by: MemberId | null;
      readonly restedAt: Instant;
    }
  /** Until a round, by whose name it is held. */
  | { readonly kind: "held"; readonly by: MemberId | null; readonly round: string }
  /** Out of a round: at its hour (null), or by hand before. */
  | { readonly kind: "let-in"; readonly by: MemberId | null; readonly round: string; readonly heldAt: Instant }
  | { readonly kind: "settled"; readonly by: MemberId | null }
  /** It mattered until then only. */
  | { readonly kind: "lapsed" }
  | { readonly kind: "answered"; readonly by: MemberId | null }
  | { readonly kind: "binned"; readonly by: MemberId | null }
  | { readonly kind: "junked"; readonly by: MemberId | null }
  | { readonly kind: "restored"; readonly by: MemberId | null };

/** Exactly one kind, since when, and exactly one reason. */
export type Standing = { readonly kind: StandingKind; readonly since: Instant; readonly reason: Reason };

/** A thing to do on a conversation, for somebody, by a day or without one. */
export type FollowUp = {
  readonly id: FollowUpId;
  readonly forMember: MemberId;
  readonly setBy: MemberId | null;
  readonly dueAt: Instant | null;
  readonly text: string;
  /** When it was done; null while it is open. */
  readonly doneAt: Instant | null;
};
