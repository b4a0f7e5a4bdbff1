import { inCharge, timeOffAt } from "../../core/cover/covering";
import { type Decision, planDecision } from "../../core/docket/plan-decision";
import type { Effect } from "../../core/journal/entry";
import type { EntryId, MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { mentioned } from "../../core/notes/mentions";
import { NOTE_EDITABLE_MS } from "../../core/notes/note-text";
import type { Filing } from "../../core/records/filing-means";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { dayInWords } from "../../core/time/day-words";
import {
  allMembers,
  groupsOf,
  membersOfTray,
  membersWithRoles,
  type TrayGrant,
  timesOffNow,
} from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { categoriesOf, keepCategories, standingEntry } from "../../storage/facts/index";
import { keepRecord, recordsByIds } from "../../storage/records/index";
import type { Asking, Deps, Within } from "../base/deps";
import type { Refusal } from "../base/refusal";
import { changeConversations, type Done, type Target } from "../changes/change-conversations";
import { aliasesIn, withAliases } from "./awaiting";
import { withFields } from "./filing";
import { loadsOfThere, plannerOf } from "./take-turns";

/** Carries a member's decision out on conversations of a tray, as one batch that can be undone. */
export function decide(
  deps: Deps,
  grant: TrayGrant,
  target: Target,
  decision: Decision,
): Promise<Result<Done, Refusal>> {
  return decideTogether(deps, grant, target, [decision]);
}

/** Carries several decisions out as one: all of them or none, in one batch. What one does is nothing that another asks for. */
export async function decideTogether(
  deps: Deps,
  grant: TrayGrant,
  target: Target,
  given: readonly Decision[],
): Promise<Result<Done, Refusal>> {
  const decisions = await Promise.all(given.map((one) => withMentions(deps, one)));
  const plans: Planner[] = [];
  return changeConversations(
    deps,
    grant,
    target,
    (facts) => plans.flatMap((plan) => plan(facts)),
    async (trx) => {
      for (const decision of decisions) {
        const planned = await plannedWithin(trx, deps, grant, target, decision);
        if (!planned.ok) return planned.error;
        plans.push(planned.value);
      }
      return null;
    },
  );
}

type Planner = Awaited<ReturnType<typeof plannerOf>>;

// What one decision comes to, once what it needs is held and nothing speaks against it.
async function plannedWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  target: Target,
  decision: Decision,
): Promise<Result<Planner, Refusal>> {
  const within = { ...deps, db: trx };
  if (decision.kind === "categorise") await keepCategories(trx);
  if (decision.kind === "file") await keepRecord(trx, decision.recordId);
  const refusal = await decisionRefusal(within, grant, decision);
  if (refusal !== null) return err(refusal);
  const complete = await withFields(within, grant, decision);
  if (!complete.ok) return complete;
  const planner = await plannerOf(within, grant, complete.value);
  const aliases = decision.kind === "expect" ? await aliasesIn(trx, grant.tray.id, target.ids) : [];
  return ok((facts) => withAliases(planner(facts), aliases));
}

/** What filing a conversation comes to within a transaction that somebody else ends; refused as deciding it would be. */
export async function fileWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  filing: Filing,
  known: ConversationFacts,
): Promise<Result<Effect[], Refusal>> {
  const decision = { kind: "file", settle: false, ...filing } as const;
  await keepRecord(trx, filing.recordId);
  const within = { ...deps, db: trx };
  const refusal = await decisionRefusal(within, grant, decision);
  if (refusal !== null) return err(refusal);
  const complete = await withFields(within, grant, decision);
  return complete.ok ? ok(planDecision(complete.value, known)) : complete;
}

/** Writes a note of one's own anew, within half an hour of it. */
export async function editNote(
  deps: Deps,
  grant: TrayGrant,
  target: Target,
  entryId: EntryId,
  text: string,
): Promise<Result<Done, Refusal>> {
  const edit = await withMentions(deps, { kind: "edit-note", entryId, text });
  return changeConversations(
    deps,
    grant,
    target,
    (facts) => planDecision(edit, facts),
    async (trx) => {
      const entry = await standingEntry(trx, grant.tray.id, entryId);
      if (entry?.effect.kind !== "noted" || !target.ids.includes(entry.conversationId))
        return { kind: "no-such", what: "note" };
      if (entry.by !== grant.memberId) return { kind: "not-your-note" };
      if (entry.at + NOTE_EDITABLE_MS < deps.now()) return { kind: "note-stands" };
      return decisionRefusal({ ...deps, db: trx }, grant, edit);
    },
  );
}

/** The decision, a note with whom it names: they are told of it. */
export async function withMentions(deps: Asking, decision: Decision): Promise<Decision> {
  if (decision.kind !== "note" && decision.kind !== "edit-note") return decision;
  if (!decision.text.includes("@")) return decision;
  return { ...decision, mentions: mentioned(decision.text, await allMembers(deps.db)) };
}

/** Why a decision cannot be about any conversation of a tray; null when it can. */
export async function decisionRefusal(deps: Asking, grant: TrayGrant, decision: Decision): Promise<Refusal | null> {
  switch (decision.kind) {
    case "assign":
      return decision.ownerId === null ? null : ownerRefusal(deps, grant, decision.ownerId, decision.evenIfAway);
    case "assign-in-turn":
      return groupRefusal(deps, grant, decision);
    case "follow":
      return decision.follows ? memberRefusal(deps, grant, decision.memberId) : null;
    case "note":
    case "edit-note":
      return mentionRefusal(deps, grant, decision.mentions ?? []);
    case "categorise":
      return categoryRefusal(deps, grant, decision);
    case "file":
    case "unfile":
    case "particulars":
      return recordRefusal(deps, grant, decision);
    case "expect":
      if (decision.colleagueId !== undefined) return memberRefusal(deps, grant, decision.colleagueId);
      return pastRefusal(deps, decision);
    case "rest":
    case "extend":
      return pastRefusal(deps, decision);
    case "expire":
      return pastRefusal(deps, { until: decision.at });
    case "follow-up":
      if (decision.dueAt !== null && decision.dueAt <= deps.now()) return { kind: "date-is-past" };
      return memberRefusal(deps, grant, decision.forMember);
    default:
      return null;
  }
}

async function recordRefusal(
  deps: Asking,
  grant: TrayGrant,
  { kind, recordId }: Extract<Decision, { kind: "file" | "unfile" | "particulars" }>,
): Promise<Refusal | null> {
  const [record] = await recordsByIds(deps.db, grant, [recordId]);
  if (record === undefined) return { kind: "no-such", what: "record" };
  return kind === "file" && record.closed ? { kind: "record-closed", code: record.code } : null;
}

function pastRefusal(deps: Within, { until }: { readonly until: Instant | null }): Refusal | null {
  return until === null || until > deps.now() ? null : { kind: "date-is-past" };
}

async function categoryRefusal(
  deps: Asking,
  grant: TrayGrant,
  { categoryId, give }: Extract<Decision, { kind: "categorise" }>,
): Promise<Refusal | null> {
  const category = (await categoriesOf(deps.db, grant.tray.id)).find(({ id }) => id === categoryId);
  if (category === undefined) return { kind: "no-such", what: "category" };
  return give && category.retired ? { kind: "category-retired", name: category.name } : null;
}

async function memberRefusal(deps: Asking, grant: TrayGrant, memberId: MemberId): Promise<Refusal | null> {
  const members = await membersOfTray(deps.db, grant.tray.id);
  return members.some(({ id }) => id === memberId) ? null : { kind: "no-such", what: "member" };
}

async function ownerRefusal(
  deps: Asking,
  grant: TrayGrant,
  ownerId: MemberId,
  evenIfAway = false,
): Promise<Refusal | null> {
  const now = deps.now();
  const [members, timesOff] = await Promise.all([membersWithRoles(deps.db, grant.tray.id), timesOffNow(deps.db, now)]);
  const owner = members.find(({ id }) => id === ownerId);
  if (owner === undefined) return { kind: "no-such", what: "member" };
  if (owner.role === "reader") return { kind: "only-reads", name: owner.name };
  if (evenIfAway) return null;
  const off = timeOffAt(ownerId, now, timesOff);
  if (off === null) return null;
  const cover = inCharge(ownerId, { trayId: grant.tray.id, recordIds: [] }, now, timesOff);
  return {
    kind: "away",
    name: owner.name,
    back: dayInWords(off.until, now, grant.tray.timeZone),
    cover: members.find(({ id }) => id === cover)?.name ?? null,
  };
}

async function groupRefusal(
  deps: Asking,
  grant: TrayGrant,
  { groupId }: Extract<Decision, { kind: "assign-in-turn" }>,
): Promise<Refusal | null> {
  const group = (await groupsOf(deps.db, grant)).find(({ id }) => id === groupId);
  if (group === undefined) return { kind: "no-such", what: "group" };
  return (await loadsOfThere(deps, grant, group)).size === 0 ? { kind: "nobody-there", name: group.name } : null;
}

async function mentionRefusal(deps: Asking, grant: TrayGrant, mentions: readonly MemberId[]): Promise<Refusal | null> {
  if (mentions.length === 0) return null;
  const members = await membersOfTray(deps.db, grant.tray.id);
  const outside = mentions.filter((id) => !members.some((member) => member.id === id));
  if (outside.length === 0) return null;
  const names = (await allMembers(deps.db)).filter(({ id }) => outside.includes(id)).map(({ name }) => name);
  return { kind: "no-access", names };
}
