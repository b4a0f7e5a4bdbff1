import type { Docket } from "../../core/docket/derive-docket";
import { urgencyRank } from "../../core/kernel/urgency";
import type { FollowUp } from "../../core/standing/standing";
import type { Described } from "../base/described";

/** What a conversation has of its docket: what listing needs, nothing that listing does not. */
export const DOCKET: Described<Docket> = {
  standing: { kind: "text", of: ({ standing }) => standing.kind },
  standing_since: { kind: "timestamptz", of: ({ standing }) => standing.since },
  standing_reason: { kind: "jsonb", of: ({ standing }) => standing.reason },
  turn: { kind: "text", of: ({ turn }) => turn.kind },
  turn_since: { kind: "timestamptz", of: ({ turn }) => (turn.kind === "nobody" ? null : turn.since) },
  owner_id: { kind: "uuid", of: ({ ownerId }) => ownerId },
  follower_ids: { kind: "uuid[]", of: ({ followerIds }) => followerIds },
  category_ids: { kind: "uuid[]", of: ({ categoryIds }) => categoryIds },
  record_ids: { kind: "uuid[]", of: ({ recordIds }) => recordIds },
  expected_at: { kind: "timestamptz", of: ({ expectedAt }) => expectedAt },
  expires_at: { kind: "timestamptz", of: ({ expiresAt }) => expiresAt },
  resting_until: { kind: "timestamptz", of: ({ restingUntil }) => restingUntil },
  held_for: { kind: "uuid", of: ({ heldFor }) => heldFor },
  woken_at: { kind: "timestamptz", of: ({ wokenAt }) => wokenAt },
  follow_up_at: { kind: "timestamptz", of: ({ followUpAt }) => followUpAt },
  urgency: { kind: "smallint", of: ({ urgency }) => urgencyRank(urgency) },
  marks: { kind: "jsonb", of: ({ marks }) => marks },
};

/** A row of a follow-up. The page of follow-ups asks for them by member and date, which no list of conversations can answer. */
export const FOLLOW_UP: Described<FollowUp> = {
  id: { kind: "uuid", of: ({ id }) => id },
  for_member_id: { kind: "uuid", of: ({ forMember }) => forMember },
  set_by_member_id: { kind: "uuid", of: ({ setBy }) => setBy },
  due_at: { kind: "timestamptz", of: ({ dueAt }) => dueAt },
  text: { kind: "text", of: ({ text }) => text },
  done_at: { kind: "timestamptz", of: ({ doneAt }) => doneAt },
};

/** A row of what is filed alone. A record asks for them by itself, which no column of a conversation can answer. */
export const FILED_PART: Described<Docket["filedParts"][number]> = {
  record_id: { kind: "uuid", of: ({ recordId }) => recordId },
  message_id: { kind: "uuid", of: ({ messageId }) => messageId },
  // The message as a whole.
  attachment: { kind: "int", of: ({ attachment }) => attachment ?? -1 },
  filed_at: { kind: "timestamptz", of: ({ at }) => at },
  by_member_id: { kind: "uuid", of: ({ by }) => by },
  means: { kind: "text", of: ({ means }) => means },
  fields: { kind: "jsonb", of: ({ fields }) => fields },
  earlier: { kind: "jsonb", of: ({ earlier }) => earlier },
};
