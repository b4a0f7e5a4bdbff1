import { type BatchId, type ConversationId, type DraftId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { laterProblem } from "../../core/later-letters/later-letter";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { unplanDraft } from "../../storage/conversation/index";
import { entriesToUndo, lockConversations, relist } from "../../storage/facts/index";
import {
  changeLaterLetter,
  endLaterLetter,
  type LaterLetter,
  laterLetter,
  laterLettersOf,
  lockLaterLetter,
  lockSeries,
} from "../../storage/mail/index";
import type { Answer } from "../answering/answer";
import type { Deps, Within } from "../base/deps";
import { undoEntries } from "../deciding/undo";
import { type LetterInList, lettersInWords } from "../reading/letters-in-words";
import type { Refusal } from "../refusals/refusal";
import { isDueBefore } from "./plan-letter";
import { sendLetter } from "./send-later";

/** For how long what went, or was not needed, stands in the list, in days. */
const SHOWN_DAYS = 3;
const SHOWN = 500;

/** The letters of a tray that are to go, the next first, and those that went or were stopped lately. */
export async function getLettersToGo(deps: Deps, grant: TrayGrant): Promise<LetterInList[]> {
  return lettersInWords(await laterLettersOf(deps.db, grant, later(deps.now(), -SHOWN_DAYS * DAY), SHOWN));
}

/** What can be done with a letter that is to go. */
export type LetterStep =
  /** It becomes a draft of its writer's again. */
  | { readonly do: "call-off" }
  /** The same with all that is still to go of its series. */
  | { readonly do: "call-off-series" }
  | { readonly do: "send-now" }
  /** At another moment; what came between has been read. */
  | { readonly do: "put"; readonly at: Instant }
  /** What is held goes at the moment that it was to, or at once where that is over. */
  | { readonly do: "let-go" };

/** Does something with a letter that is to go. Its writer may do all of it; who leads the tray may call it off. */
export async function changeLetter(
  deps: Deps,
  grant: TrayGrant,
  id: DraftId,
  step: LetterStep,
): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const problem = step.do === "put" ? laterProblem(step, deps.now()) : null;
  if (problem !== null) return err({ kind: "not-then", why: problem });
  const done = await inTransactionUnlessRefused(deps.db, (trx) => changeWithin(trx, deps, grant, id, step));
  if (!done.ok) return done;
  if (step.do === "send-now") await sendLetter(deps, id);
  const { conversationId } = done.value;
  if (conversationId !== null) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok(null);
}

async function changeWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  id: DraftId,
  step: LetterStep,
): Promise<Result<LaterLetter, Refusal>> {
  const first = await laterLetter(trx, id);
  if (first === null || first.trayId !== grant.tray.id) return err({ kind: "no-such", what: "letter" });
  const seenVersion = first.conversationId === null ? 0 : await versionOf(trx, grant, first.conversationId);
  const letter = await lockLaterLetter(trx, id, { skips: false });
  if (letter === null) return err({ kind: "letter-is-over" });
  const isHers = letter.memberId === grant.memberId;
  const callsOff = step.do === "call-off" || step.do === "call-off-series";
  if (!isHers && (!callsOff || grant.role !== "lead")) return err({ kind: "not-your-letter" });
  if (step.do === "put" && isDueBefore(letter.answer as Answer, step.at)) return err({ kind: "due-before-it-goes" });
  if (callsOff) await callOff(trx, deps, grant, letter, step.do === "call-off-series");
  else await changeLaterLetter(trx, id, { state: "waiting", at: goesAt(deps, letter, step), seenVersion });
  return ok(letter);
}

async function callOff(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  letter: LaterLetter,
  isSeries: boolean,
): Promise<void> {
  const all = isSeries ? await lockSeries(trx, letter.series.id) : [letter];
  for (const { id } of all) await endLaterLetter(trx, id, "called-off", deps.now());
  // All of a series say the same: one draft is enough.
  await unplanDraft(trx, all[0]?.id ?? letter.id, "own", deps.now());
  if ((await lockSeries(trx, letter.series.id)).length === 0) await takeRestBack(trx, deps, grant, letter);
}

function goesAt(deps: Within, letter: LaterLetter, step: LetterStep): Instant {
  if (step.do === "put") return step.at;
  return step.do === "send-now" ? deps.now() : letter.at;
}

// What rested until it went is where it was before.
async function takeRestBack(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  { series, conversationId }: LaterLetter,
): Promise<void> {
  if (conversationId === null) return;
  const entries = await entriesToUndo(trx, grant.tray.id, { batchIds: [trustedId<BatchId>(series.id)] });
  if (entries.length === 0) return;
  const held = await lockConversations(trx, grant.tray.id, [conversationId]);
  await undoEntries(trx, deps, grant, held, entries);
  await relist(trx, [conversationId]);
}

// Held from here on, as whoever changes it holds it before the letters that are to go into it.
async function versionOf(trx: Transaction, { tray }: TrayGrant, id: ConversationId): Promise<number> {
  const [held] = await lockConversations(trx, tray.id, [id]);
  return held?.version ?? 0;
}
