import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { PrefetchPageLinks, useFetcher, useParams, useRevalidator } from "react-router";
import { toast } from "sonner";
import { leadsTo } from "../../core/docket/leads-to";
import { type CategoryId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { StandingKind } from "../../core/standing/standing";
import type { RowView } from "../server/words.server";
import { Notices } from "../ui/notices";
import type { DecisionOutcome, UndoOutcome } from "./decision-outcome";

/** A decision as it is posted: its kind, and the fields that go with it. */
export type PostedDecision =
  | { readonly kind: "assign"; readonly owner: string }
  | { readonly kind: "categorise"; readonly category: string; readonly give: boolean }
  | { readonly kind: "file"; readonly record: string; readonly code: string; readonly settle: boolean }
  | { readonly kind: "unfile"; readonly record: string; readonly code: string }
  | { readonly kind: "keep" | "settle" | "bin" | "restore" | "stop-expecting" }
  | { readonly kind: "rest" | "expect"; readonly day: string }
  | { readonly kind: "note"; readonly text: string };

/** A decision on its way: already shown, not yet confirmed. */
type Pending = {
  readonly key: number;
  readonly decision: PostedDecision;
  readonly rows: readonly DecidedRow[];
  readonly said: string;
};

type DecidedRow = Pick<RowView, "id" | "version" | "standing">;

type Decisions = {
  /** Carries a decision out; `said` is what the message with the Undo button says. */
  readonly decide: (decision: PostedDecision, rows: readonly DecidedRow[], said: string) => void;
  readonly undo: (batchId?: string) => void;
  readonly pending: readonly Pending[];
};

const DecisionsContext = createContext<Decisions | null>(null);

/** Carries decisions out: shown at once, taken back with a message when the server refuses, each with Undo. */
export function DecisionsProvider({ children }: { children: ReactNode }) {
  const { tray = "" } = useParams();
  const { revalidate } = useRevalidator();
  const [pending, setPending] = useState<readonly Pending[]>([]);
  const [undos, setUndos] = useState<readonly { key: number; batchId: string | undefined }[]>([]);
  const nextKey = useRef(0);
  const decide = useCallback<Decisions["decide"]>((decision, rows, said) => {
    nextKey.current += 1;
    const key = nextKey.current;
    setPending((others) => [...others, { key, decision, rows, said }]);
  }, []);
  const undo = useCallback<Decisions["undo"]>((batchId) => {
    nextKey.current += 1;
    const key = nextKey.current;
    setUndos((others) => [...others, { key, batchId }]);
  }, []);
  const value = useMemo(() => ({ decide, undo, pending }), [decide, undo, pending]);
  const decided = (done: Pending, outcome: DecisionOutcome) => {
    setPending((others) => others.filter(({ key }) => key !== done.key));
    if (!outcome.ok) {
      toast.error(outcome.problem, { description: done.said });
      // The router loads nothing anew after a refusal of its own accord.
      if (outcome.stale) void revalidate();
    }
    if (outcome.ok && outcome.count > 0) {
      toast(done.said, { action: { label: "Undo", onClick: () => undo(outcome.batchId) } });
    }
  };
  const undone = (key: number, outcome: UndoOutcome) => {
    setUndos((others) => others.filter((other) => other.key !== key));
    if (outcome.ok) toast(outcome.message);
    else toast.error(outcome.problem);
  };
  return (
    <DecisionsContext value={value}>
      {children}
      {tray !== "" && (
        <>
          {/* Loaded before they are needed: a decision has to be answered for even when the line has gone down. */}
          <PrefetchPageLinks page={`/${tray}/decide`} />
          <PrefetchPageLinks page={`/${tray}/undo`} />
        </>
      )}
      {pending.map((one) => (
        <Courier<DecisionOutcome>
          key={one.key}
          action={`/${tray}/decide`}
          form={decisionForm(one)}
          onDone={(outcome) => decided(one, outcome)}
        />
      ))}
      {undos.map(({ key, batchId }) => (
        <Courier<UndoOutcome>
          key={key}
          action={`/${tray}/undo`}
          form={batchId === undefined ? {} : { batch: batchId }}
          onDone={(outcome) => undone(key, outcome)}
        />
      ))}
      <Notices />
    </DecisionsContext>
  );
}

/** The means to decide, undo, and see what is under way. */
export function useDecisions(): Decisions {
  const decisions = useContext(DecisionsContext);
  if (decisions === null) throw new Error("this screen stands outside the decisions");
  return decisions;
}

type FormFields = Readonly<Record<string, string | readonly string[]>>;

// One for each decision under way, as a fetcher carries one form at a time; done when what is shown has been loaded anew.
function Courier<Outcome>({
  action,
  form,
  onDone,
}: {
  action: string;
  form: FormFields;
  onDone: (outcome: Outcome) => void;
}) {
  const fetcher = useFetcher<Outcome>();
  const sent = useRef(false);
  const done = useRef(onDone);
  done.current = onDone;
  useEffect(() => {
    if (sent.current) return;
    sent.current = true;
    const body = new FormData();
    for (const [name, value] of Object.entries(form)) for (const one of [value].flat()) body.append(name, one);
    void fetcher.submit(body, { method: "post", action });
  }, [fetcher, form, action]);
  useEffect(() => {
    if (fetcher.state === "idle" && fetcher.data !== undefined) done.current(fetcher.data as Outcome);
  }, [fetcher.state, fetcher.data]);
  return null;
}

function decisionForm({ decision, rows }: Pending): FormFields {
  const fields = Object.entries(decision).map(([name, value]) => [name, String(value)] as const);
  const [only] = rows;
  return {
    ...Object.fromEntries(fields),
    conversation: rows.map((row) => row.id),
    // Of several, each has a version of its own; only what one person saw of one conversation is compared.
    ...(rows.length === 1 && only !== undefined ? { version: String(only.version) } : {}),
  };
}

/** Where a posted decision leads from a standing; null when it moves nothing. */
export function postedLeadsTo(decision: PostedDecision, from: StandingKind): StandingKind | null {
  return leadsTo(decision.kind === "assign" ? { kind: "assign", ownerId: decision.owner || null } : decision, from);
}

/** A row as it will be once what is under way has been confirmed; null when it will have left its standing. */
export function withPending(row: RowView, pending: readonly Pending[]): RowView | null {
  let shown: RowView = row;
  for (const { decision, rows } of pending) {
    if (!rows.some(({ id }) => id === row.id)) continue;
    const leads = postedLeadsTo(decision, row.standing);
    if (leads !== null && leads !== row.standing) return null;
    shown = withDecision(shown, decision);
  }
  return shown;
}

function withDecision(row: RowView, decision: PostedDecision): RowView {
  switch (decision.kind) {
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
      return { ...row, recordCodes: [...new Set([...row.recordCodes, decision.code])] };
    case "unfile":
      return { ...row, recordCodes: row.recordCodes.filter((code) => code !== decision.code) };
    default:
      return row;
  }
}
