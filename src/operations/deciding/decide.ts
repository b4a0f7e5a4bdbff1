import type { Decision } from "../../core/deciding/decision";
import { planDecision } from "../../core/deciding/plan-decision";
import type { Effect } from "../../core/journal/entry";
import type { EntryId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { mentioned } from "../../core/notes/mentions";
import { NOTE_EDITABLE_MS } from "../../core/notes/note-text";
import type { Filing } from "../../core/records/filing-means";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { allMembers, type TrayGrant } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { standingEntry } from "../../storage/facts/index";
import type { Asking, Deps, Within } from "../base/deps";
import { changeConversations, type Done, type Target } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";
import { aliasesIn, withAliases } from "./awaiting";
import { withFields } from "./filing";
import { decisionRefusal, lockNeeds } from "./needs";
import { plannerOf } from "./round-robin";

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
  await lockNeeds(trx, decision);
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
  const within = { ...deps, db: trx };
  await lockNeeds(trx, decision);
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
