import {
  createContext,
  type ReactNode,
  Suspense,
  startTransition,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { PrefetchPageLinks, useParams, useRevalidator } from "react-router";
import { leadsTo } from "../../core/docket/leads-to";
import type { Whom } from "../../core/docket/plan-decision";
import { type CategoryId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Urgency } from "../../core/kernel/urgency";
import type { Scope } from "../../core/lists/scope";
import type { AskedFields } from "../../core/records/filing-field";
import type { FilingMeans } from "../../core/records/filing-means";
import type { StandingKind } from "../../core/standing/standing";
import type { RowView } from "../server/words.server";
import { Notices, notice, noticeProblem } from "../ui/notices";
import { Courier, type FormFields } from "./courier";
import type { DecisionOutcome, UndoOutcome } from "./decision-outcome";
import { FilingSheet } from "./lazy-filing-sheet";
import { ChangeHub, ChangeHubContext } from "./live-hub";
import { newCommand, onceAt } from "./use-command";

/** A decision as it is posted: its kind, and the fields that go with it. */
export type PostedDecision = SingleDecision | Accepted;

/** What is proposed and accepted together: one decision, with one way back. */
export type Accepted = { readonly kind: "accept"; readonly decisions: readonly SingleDecision[] };

/** One thing that is decided. */
export type SingleDecision =
  | { readonly kind: "assign"; readonly owner: string; readonly note?: string; readonly evenIfAway?: true }
  | { readonly kind: "assign-in-turn"; readonly group: string; readonly note?: string }
  | { readonly kind: "follow"; readonly member: string; readonly follows: boolean }
  /** `name` for one that was created a moment ago, which the screen need not know yet. */
  | { readonly kind: "categorise"; readonly category: string; readonly give: boolean; readonly name?: string }
  /** `fields` are the particulars that its record asks for, as JSON; `message` (and its `attachment`) is filed alone. */
  | {
      readonly kind: "file";
      readonly record: string;
      readonly code: string;
      readonly settle: boolean;
      readonly means?: FilingMeans;
      readonly fields?: string;
      readonly message?: string;
      readonly attachment?: number;
    }
  | { readonly kind: "particulars"; readonly record: string; readonly code: string; readonly fields: string }
  | {
      readonly kind: "unfile";
      readonly record: string;
      readonly code: string;
      readonly message?: string;
      readonly attachment?: number;
    }
  | { readonly kind: "keep" | "settle" | "bin" | "restore" | "junk" | "stop-expecting" | "no-answer" | "unread" }
  /** `at` is an instant of ISO 8601, or nothing for no date. */
  | { readonly kind: "rest"; readonly at: string; readonly mode: "either" | "time" }
  | {
      readonly kind: "expect";
      readonly at: string;
      readonly whom?: Whom;
      readonly colleague?: string;
      readonly besides?: boolean;
    }
  | { readonly kind: "extend"; readonly expectation: string; readonly at: string }
  | { readonly kind: "expire"; readonly at: string }
  | { readonly kind: "withdraw"; readonly expectation: string }
  | { readonly kind: "acknowledge"; readonly message: string }
  | { readonly kind: "follow-up"; readonly at: string; readonly member: string; readonly text: string }
  | { readonly kind: "follow-up-done" | "follow-up-clear"; readonly followUp: string }
  | { readonly kind: "urgency"; readonly urgency: Urgency }
  | { readonly kind: "note"; readonly text: string };

/** A decision on its way: already shown, not yet confirmed. */
export type Pending = {
  readonly key: number;
  /** By which the server knows it when it is sent again. */
  readonly command: string;
  readonly decision: PostedDecision;
  readonly rows: readonly DecidedRow[];
  readonly target: DecisionTarget<DecidedRow>;
  readonly said: string;
  /** How often it was sent; more than once when the server could not be reached. */
  readonly attempt: number;
  /** Whether the next may go: the server has answered, or could not be reached. */
  readonly isPassed: boolean;
};

/** A list, or a group of it, with everything that it holds, loaded or not. */
export type Everything = {
  readonly scope: Scope;
  readonly query: string;
  readonly lane: string | null;
  readonly count: number;
};

/** What a decision needs to know of a conversation. */
export type DecidedRow = Pick<RowView, "id" | "version" | "standing">;

/** What a decision is about: these rows, or everything of a list, of which these are loaded. */
export type DecisionTarget<Row extends DecidedRow = RowView> = {
  readonly rows: readonly Row[];
  readonly everything: Everything | null;
};

/** How many conversations a target has. */
export function countOf({ rows, everything }: DecisionTarget<DecidedRow>): number {
  return everything?.count ?? rows.length;
}

type Decisions = {
  /** Carries a decision out; `said` is what the message with the Undo button says. */
  readonly decide: (decision: PostedDecision, target: DecisionTarget<DecidedRow>, said: string) => void;
  readonly undo: (batchIds?: string | readonly string[]) => void;
  readonly redo: () => void;
  /** Takes a change of categories back. */
  readonly undoCategories: (stepId: string) => void;
};

const DecisionsContext = createContext<Decisions | null>(null);
// Of its own, so that what only decides is not drawn anew whenever something is under way.
const PendingContext = createContext<readonly Pending[]>([]);

/** Carries decisions out: shown at once, taken back with a message when the server refuses, each with Undo. */
export function DecisionsProvider({ children }: { children: ReactNode }) {
  const { tray = "" } = useParams();
  const { revalidate } = useRevalidator();
  const [pending, setPending] = useState<readonly Pending[]>([]);
  const [undos, setUndos] = useState<readonly Undoing[]>([]);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [hub] = useState(() => new ChangeHub());
  // What is prefetched is the browser's business; to find it for every page costs the server as much as drawing a list.
  const [isInBrowser, setInBrowser] = useState(false);
  useEffect(() => setInBrowser(true), []);
  const nextKey = useRef(0);
  const decide = useCallback<Decisions["decide"]>((decision, target, said) => {
    nextKey.current += 1;
    const key = nextKey.current;
    setPending((others) => [
      ...others,
      { key, command: newCommand(), decision, rows: target.rows, target, said, attempt: 1, isPassed: false },
    ]);
  }, []);
  const take = useCallback((form: Undoing["form"]) => {
    nextKey.current += 1;
    const key = nextKey.current;
    setUndos((others) => [...others, { key, command: newCommand(), form }]);
  }, []);
  const undo = useCallback<Decisions["undo"]>(
    (batchIds) => take(batchIds === undefined ? {} : { batch: batchIds }),
    [take],
  );
  const redo = useCallback(() => take({ redo: "true" }), [take]);
  const undoCategories = useCallback((step: string) => take({ step }), [take]);
  const value = useMemo(() => ({ decide, undo, redo, undoCategories }), [decide, undo, redo, undoCategories]);
  const sendAgain = useCallback((key: number) => {
    setPending((all) => all.map((one) => (one.key === key ? { ...one, attempt: one.attempt + 1 } : one)));
  }, []);
  const pass = (key: number) =>
    setPending((all) => all.map((one) => (one.key === key && !one.isPassed ? { ...one, isPassed: true } : one)));
  // In the order of the keys, so that the server has them in that order, and undoing takes back what was decided last.
  const first = pending.findIndex(({ isPassed }) => !isPassed);
  const onTheirWay = first === -1 ? pending : pending.slice(0, first + 1);
  const isKept = pending.some(({ attempt }) => attempt > 1) || pending.length > onTheirWay.length;
  useWarningBeforeLeaving(isKept);
  const decided = async (done: Pending, outcome: DecisionOutcome) => {
    if (outcome.ok === "unreachable") {
      if (done.attempt === 1)
        noticeProblem("No line to the server", { description: `Kept, and sent when it is back: ${done.said}` });
      setTimeout(() => sendAgain(done.key), SEND_AGAIN_MS);
      return;
    }
    // What was foreseen stays until the lists show what is: otherwise the row would be seen to come back for a moment.
    const isOver = outcome.ok || outcome.stale;
    if (isOver && done.target.everything === null) await hub.announce(done.rows.map(({ id }) => id));
    startTransition(() => setPending((others) => others.filter(({ key }) => key !== done.key)));
    const asked = askedBy(done, outcome);
    if (asked !== null) {
      setAsking(asked);
      return;
    }
    tellOutcome(done.said, outcome, undo);
    // The router loads nothing anew after a refusal of its own accord.
    if (!outcome.ok && outcome.stale) void revalidate();
  };
  // One after the other, and after what was decided before it: each takes back what was the last by then.
  const [firstUndo = null] = undos;
  const nextUndo = firstUndo === null || pending.some(({ key }) => key < firstUndo.key) ? null : firstUndo;
  const undone = (key: number, outcome: UndoOutcome) => {
    setUndos((others) => others.filter((other) => other.key !== key));
    if (outcome.ok) notice(outcome.message);
    else noticeProblem(outcome.problem);
  };
  return (
    <DecisionsContext value={value}>
      <PendingContext value={pending}>
        <ChangeHubContext value={hub}>{children}</ChangeHubContext>
      </PendingContext>
      {tray !== "" && isInBrowser && (
        <>
          {/* Loaded before they are needed: a decision has to be answered for even when the line has gone down. */}
          <PrefetchPageLinks page={`/${tray}/decide`} />
          <PrefetchPageLinks page={`/${tray}/undo`} />
        </>
      )}
      {onTheirWay.map((one) => (
        <Courier<DecisionOutcome>
          key={`${one.key} ${one.attempt}`}
          action={onceAt(`/${tray}/decide`, one.command)}
          form={decisionForm(one)}
          onAnswer={() => pass(one.key)}
          onDone={(outcome) => decided(one, outcome)}
        />
      ))}
      {nextUndo !== null && (
        <Courier<UndoOutcome>
          key={nextUndo.key}
          action={onceAt(`/${tray}/undo`, nextUndo.command)}
          form={nextUndo.form}
          onAnswer={(outcome) => undone(nextUndo.key, outcome)}
        />
      )}
      {asking !== null && (
        <Suspense fallback={null}>
          <FilingSheet
            key={asking.done.key}
            asked={asking.asked}
            count={countOf(asking.done.target)}
            changes={asking.changes}
            onFile={(fields) => {
              setAsking(null);
              decide(asking.withFields(JSON.stringify(fields)), asking.done.target, asking.done.said);
            }}
            onClose={() => setAsking(null)}
          />
        </Suspense>
      )}
      <Notices />
    </DecisionsContext>
  );
}

/** The means to decide and undo. */
export function useDecisions(): Decisions {
  const decisions = useContext(DecisionsContext);
  if (decisions === null) throw new Error("this screen stands outside the decisions");
  return decisions;
}

/** What is under way. */
export function usePending(): readonly Pending[] {
  return useContext(PendingContext);
}

/** What a record asks for before something that was decided is filed on it. */
type Asking = {
  readonly done: Pending;
  /** The decision with the particulars in their place. */
  readonly withFields: (fields: string) => PostedDecision;
  readonly changes: boolean;
  readonly asked: AskedFields;
};

function askedBy(done: Pending, outcome: Exclude<DecisionOutcome, { ok: "unreachable" }>): Asking | null {
  const { decision } = done;
  if (outcome.ok || outcome.asked === undefined) return null;
  const { asked } = outcome;
  const filled = (one: SingleDecision, fields: string): SingleDecision =>
    one.kind === "file" || one.kind === "particulars" ? { ...one, fields } : one;
  const withFields = (fields: string): PostedDecision =>
    decision.kind === "accept"
      ? { ...decision, decisions: decision.decisions.map((one) => filled(one, fields)) }
      : filled(decision, fields);
  return { done, withFields, changes: decision.kind === "particulars", asked };
}

/** An undoing, or its opposite, on its way. */
type Undoing = { readonly key: number; readonly command: string; readonly form: FormFields };

function tellOutcome(
  said: string,
  outcome: Exclude<DecisionOutcome, { ok: "unreachable" }>,
  undo: (batchId: string) => void,
): void {
  if (!outcome.ok) noticeProblem(outcome.problem, { description: said });
  // What is done in the background says of itself how far it is.
  else if (outcome.runId === null && outcome.count > 0)
    notice(said, { action: { label: "Undo", onClick: () => undo(outcome.batchId) } });
}

// Often enough that nobody waits for it once the line is back, seldom enough to leave a struggling server alone.
const SEND_AGAIN_MS = 2_000;

/** The browser asks before the page is left while something is kept that has not been sent. */
function useWarningBeforeLeaving(isKept: boolean): void {
  useEffect(() => {
    if (!isKept) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [isKept]);
}

const postedFields = (decision: SingleDecision) =>
  Object.fromEntries(Object.entries(decision).map(([name, value]) => [name, String(value)]));

function decisionForm({ decision, rows, target: { everything }, said }: Pending): FormFields {
  const posted =
    decision.kind === "accept"
      ? { kind: decision.kind, decisions: JSON.stringify(decision.decisions.map(postedFields)) }
      : postedFields(decision);
  const [only] = rows;
  if (everything !== null) {
    const { scope, query, lane } = everything;
    return { ...posted, scope, query, said, ...(lane === null ? {} : { lane }) };
  }
  return {
    said,
    ...posted,
    conversation: rows.map((row) => row.id),
    // Of several, each has a version of its own; only what one person saw of one conversation is compared.
    ...(rows.length === 1 && only !== undefined && only.version > 0 ? { version: String(only.version) } : {}),
  };
}

/** Where a posted decision leads from a standing; null when it moves nothing. */
export function postedLeadsTo(decision: PostedDecision, from: StandingKind): StandingKind | null {
  switch (decision.kind) {
    case "unread":
      return null;
    case "accept":
      return decision.decisions.reduce<StandingKind | null>((to, one) => postedLeadsTo(one, to ?? from) ?? to, null);
    case "assign":
      return leadsTo({ kind: "assign", ownerId: decision.owner || null }, from);
    case "file":
      return leadsTo({ kind: "file", settle: decision.settle }, from);
    default:
      return leadsTo({ kind: decision.kind }, from);
  }
}

/** A row as it will be once what is under way has been confirmed. */
export function withPending(row: RowView, pending: readonly Pending[]): RowView {
  let shown: RowView = row;
  for (const { decision, rows } of pending) {
    if (!rows.some(({ id }) => id === row.id)) continue;
    const leads = postedLeadsTo(decision, row.standing);
    shown = withDecision(leads === null ? shown : { ...shown, standing: leads }, decision);
  }
  return shown;
}

const withoutCode = (row: RowView, code: string) => ({
  ...row,
  recordCodes: row.recordCodes.filter((one) => one !== code),
});
const withCode = (row: RowView, code: string) => ({ ...row, recordCodes: [...new Set([...row.recordCodes, code])] });

function withDecision(row: RowView, decision: PostedDecision): RowView {
  switch (decision.kind) {
    case "accept":
      return decision.decisions.reduce<RowView>(withDecision, row);
    case "assign":
      return { ...row, ownerId: decision.owner === "" ? null : trustedId<MemberId>(decision.owner) };
    case "categorise": {
      const others = row.categoryIds.filter((id) => id !== decision.category);
      return {
        ...row,
        categoryIds: decision.give ? [...others, trustedId<CategoryId>(decision.category)] : others,
      };
    }
    case "file":
      return decision.message === undefined ? withCode(row, decision.code) : row;
    case "follow": {
      const id = trustedId<MemberId>(decision.member);
      const others = row.followerIds.filter((one) => one !== id);
      return { ...row, followerIds: decision.follows ? [...others, id] : others };
    }
    case "urgency":
      return { ...row, urgency: decision.urgency };
    case "unread":
      return { ...row, unread: true };
    case "unfile":
      return decision.message === undefined ? withoutCode(row, decision.code) : row;
    default:
      return row;
  }
}
