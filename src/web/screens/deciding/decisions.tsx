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
import type { AskedFields, FieldValues } from "../../../core/records/filing-field";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { Say } from "../../../texts/say";
import { Notices, notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { DecisionSubmitter, type FormFields } from "../frame/decision-submitter";
import { ChangeHub, ChangeHubContext } from "../frame/live-hub";
import { newCommand, onceAt } from "../frame/use-command";
import type { DecisionOutcome, UndoOutcome } from "./decision-outcome";
import { FilingSheet } from "./lazy-filing-sheet";
import {
  countOf,
  type DecidedRow,
  type DecisionTarget,
  decisionForm,
  type Pending,
  type PostedDecision,
  type SingleDecision,
} from "./posted-decision";

type Decisions = {
  /** Carries a decision out; `said` is what the message with the Undo button says. */
  readonly decide: (decision: PostedDecision, target: DecisionTarget<DecidedRow>, said: string) => void;
  /** What is under way, also what was decided a moment ago and is not drawn yet. */
  readonly underWay: () => readonly Pending[];
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
  const say = useSay(decidingTexts, commonTexts);
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
  const kept = useRef<readonly Pending[]>([]);
  const underWay = useCallback(() => kept.current, []);
  const decide = useCallback<Decisions["decide"]>((decision, target, said) => {
    nextKey.current += 1;
    const key = nextKey.current;
    const asked = { key, command: newCommand(), decision, rows: target.rows, target, said };
    const one: Pending = { ...asked, attempt: 1, isPassed: false };
    kept.current = [...kept.current, one];
    setPending((others) => [...others, one]);
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
  const value = useMemo(
    () => ({ decide, underWay, undo, redo, undoCategories }),
    [decide, underWay, undo, redo, undoCategories],
  );
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
        noticeProblem(say("deciding.connectionLost"), {
          description: say("deciding.yourChangeIsKeptAnd", { said: done.said }),
        });
      setTimeout(() => sendAgain(done.key), SEND_AGAIN_MS);
      return;
    }
    const showWhatIs = async () => {
      if (done.target.everything === null) await hub.announce(done.rows.map(({ id }) => id));
    };
    const others = (all: readonly Pending[]) => all.filter(({ key }) => key !== done.key);
    const forget = () => {
      kept.current = others(kept.current);
      setPending(others);
    };
    if (outcome.ok) {
      // What was foreseen stays until the lists show what is: otherwise the row would be seen to come back for a moment.
      await showWhatIs();
      startTransition(forget);
    } else {
      forget();
      void showWhatIs();
    }
    const asked = askedBy(done, outcome);
    if (asked !== null) {
      setAsking(asked);
      return;
    }
    tellOutcome(say, done.said, outcome, undo);
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
        <DecisionSubmitter<DecisionOutcome>
          key={`${one.key} ${one.attempt}`}
          action={onceAt(`/${tray}/decide`, one.command)}
          form={decisionForm(one)}
          onAnswer={() => pass(one.key)}
          onDone={(outcome) => decided(one, outcome)}
        />
      ))}
      {nextUndo !== null && (
        <DecisionSubmitter<UndoOutcome>
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
              decide(asking.withFields(fields), asking.done.target, asking.done.said);
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
  readonly withFields: (fields: FieldValues) => PostedDecision;
  readonly changes: boolean;
  readonly asked: AskedFields;
};

function askedBy(done: Pending, outcome: Exclude<DecisionOutcome, { ok: "unreachable" }>): Asking | null {
  const { decision } = done;
  if (outcome.ok || outcome.asked === undefined) return null;
  const { asked } = outcome;
  const filled = (one: SingleDecision, fields: FieldValues): SingleDecision =>
    one.kind === "file" || one.kind === "particulars" ? { ...one, fields } : one;
  const withFields = (fields: FieldValues): PostedDecision =>
    decision.kind === "accept"
      ? { ...decision, decisions: decision.decisions.map((one) => filled(one, fields)) }
      : decision.kind === "unread"
        ? decision
        : filled(decision, fields);
  return { done, withFields, changes: decision.kind === "particulars", asked };
}

/** An undoing, or its opposite, on its way. */
type Undoing = { readonly key: number; readonly command: string; readonly form: FormFields };

function tellOutcome(
  say: Say<typeof commonTexts>,
  said: string,
  outcome: Exclude<DecisionOutcome, { ok: "unreachable" }>,
  undo: (batchId: string) => void,
): void {
  if (!outcome.ok) noticeProblem(outcome.problem, { description: said });
  // What is done in the background says of itself how far it is.
  else if (outcome.runId === null && outcome.count > 0)
    notice(said, { action: { label: say("common.undo"), onClick: () => undo(outcome.batchId) } });
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
