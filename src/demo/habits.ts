import {
  type CategoryId,
  type ConversationId,
  type FollowUpId,
  type MemberId,
  type RecordId,
  trustedId,
} from "../core/kernel/ids";
import { DAY, HOUR, type Instant, later } from "../core/kernel/instant";
import type { Urgency } from "../core/kernel/urgency";
import { type Deps, decide, type Member, moreOfList, pinPlace, type TrayGrant } from "../operations/index.server";

/** How urgent some conversations of the office are, by the beginning of their subject. */
const URGENCIES: readonly (readonly [subject: string, urgency: Urgency])[] = [
  ["Swell box still cyphering", "today"],
  ["Consent for the case", "today"],
  ["Loading door times", "days"],
  ["Blower hum", "days"],
  ["Tuning before the patronal", "days"],
  ["The harmonium in store", "today"],
  ["Your copy of the winter number", "reading"],
  ["[rolling]", "reading"],
  ["Invoice 2291", "days"],
  ["Candles near the case", "today"],
];

/** What is to be done on some of them: by whom, and in how many days; null for no day. */
const FOLLOW_UPS: readonly (readonly [subject: string, by: string, days: number | null, text: string])[] = [
  ["Consent for the case", "ines", 1, "Send the drawings of the lower frame"],
  ["Swell box still cyphering", "ines", -1, "Ring the verger before evensong"],
  ["Blower hum", "ines", 0.2, "Ask Petra for the readings"],
  ["Loading door times", "ines", 4, "Book the lift"],
  ["Tuning before the January", "ines", 12, "Nine instruments: who can go?"],
  ["Humidity readings", "ines", null, "Look at last winter's log"],
  ["Tuning before the patronal", "col", 2, "Take the reed knife"],
];

type Around = {
  readonly deps: Deps;
  readonly clock: { now: Instant };
  readonly grant: TrayGrant;
  readonly members: readonly Member[];
  readonly categories: readonly { readonly id: CategoryId; readonly code: string }[];
  readonly records: readonly { readonly id: RecordId; readonly code: string }[];
};

/** What the colleagues of the office have made of their tray besides sorting it: urgencies, follow-ups, a shelf. */
export async function takeUpHabits({ deps, clock, grant, members, categories, records }: Around): Promise<void> {
  const now = clock.now;
  const ines = members.find(({ signInName }) => signInName === "ines");
  if (ines === undefined) return;
  const view = { order: "date", reversed: false, grouping: null } as const;
  const request = { scope: "open", filter: {}, view } as const;
  const rows = await moreOfList(deps, grant, ines, request, { lane: "", after: null, limit: 500 });
  const idOf = (subject: string) => rows.find((row) => row.subject.startsWith(subject))?.id;
  const about = (id: ConversationId) => ({ ids: [id], seenVersion: null });
  clock.now = later(now, -2 * HOUR);
  for (const [subject, urgency] of URGENCIES) {
    const id = idOf(subject);
    if (id !== undefined) await decide(deps, grant, about(id), { kind: "urgency", urgency });
  }
  for (const [subject, by, days, text] of FOLLOW_UPS) {
    const id = idOf(subject);
    const forMember: MemberId = members.find(({ signInName }) => signInName === by)?.id ?? ines.id;
    if (id === undefined) continue;
    const dueAt = days === null ? null : later(now, days * DAY);
    // What is past by now was set while it was still to come.
    clock.now = later(now, -3 * DAY);
    const followUpId = trustedId<FollowUpId>(deps.newId());
    await decide(deps, grant, about(id), { kind: "follow-up", followUpId, forMember, dueAt, text });
  }
  clock.now = now;
  const record = (code: string) => records.find((one) => one.code === code)?.id;
  const places = [
    ["record", record("P-26-031")],
    ["record", record("C-008")],
    ["category", categories.find(({ code }) => code === "HO")?.id],
    ["member", members.find(({ signInName }) => signInName === "tobias")?.id],
    ["record", record("P-26-040")],
  ] as const;
  for (const [kind, target] of places) {
    if (target !== undefined) await pinPlace(deps, grant, { kind, target, isForAll: false });
  }
}
