import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Outlet, useNavigate } from "react-router";
import type { StandingKind } from "../../core/standing/standing";
import type { RowView } from "../server/words.server";
import { DecisionDialogs, type DialogKind } from "./decision-dialogs";
import { type PostedDecision, postedLeadsTo, useDecisions, withPending } from "./decisions";
import { KeyList } from "./key-list";
import { Margin } from "./margin";
import { said } from "./said";
import { Sheet } from "./sheet";
import { useTray } from "./tray-data";
import { useKeys } from "./use-keys";

type StandingScreenProps = {
  readonly standing: StandingKind;
  readonly rows: readonly RowView[];
  readonly hasMore: boolean;
  readonly now: number;
  readonly openId: string | null;
};

/** What the open conversation is given by the list it was opened from. */
export type ConversationDesk = {
  readonly place: { readonly at: number; readonly of: number } | null;
  readonly ask: (dialog: DialogKind) => void;
  readonly act: (decision: PostedDecision) => void;
  /** Tells the list which row the open conversation is, so that keys and dialogs mean it. */
  readonly present: (row: RowView) => void;
  readonly goOn: () => void;
  readonly answering: boolean;
  readonly setAnswering: (answering: boolean) => void;
};

/** One standing: the sheet, or the margin with the open conversation beside it; the keys and dialogs of both. */
export function StandingScreen({ standing, rows, hasMore, now, openId }: StandingScreenProps) {
  const { tray, members, categories, mayDecide } = useTray();
  const { decide, undo, pending } = useDecisions();
  const navigate = useNavigate();
  const [cursorId, setCursorId] = useState<string | null>(null);
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  const [openRow, setOpenRow] = useState<RowView | null>(null);
  const [answering, setAnswering] = useState(false);
  const shown = useMemo(
    () => rows.flatMap((row) => withPending(row, pending) ?? []).filter((row) => row.standing === standing),
    [rows, pending, standing],
  );
  const base = `/${tray.slug}/${standing}`;
  const at = shown.findIndex((row) => row.id === (openId ?? cursorId));
  const current = openId === null ? (shown[at] ?? null) : openRow?.id === openId ? openRow : (shown[at] ?? null);
  const target = current === null ? null : (withPending(current, pending) ?? current);

  const lastAt = useRef(0);
  if (at >= 0) lastAt.current = at;
  const neighbour = useCallback(
    (step: 1 | -1): RowView | null => {
      // Its row is gone: what has moved up into its place is the next.
      const from = at >= 0 ? at + step : step === 1 ? lastAt.current : lastAt.current - 1;
      return shown[from] ?? null;
    },
    [at, shown],
  );
  const go = (row: RowView | null) => {
    if (row === null) return;
    setCursorId(row.id);
    if (openId !== null) navigate(`${base}/${row.id}`);
  };
  const goOn = () => {
    const next = neighbour(1) ?? neighbour(-1);
    setAnswering(false);
    if (next !== null) go(next);
    else if (openId !== null) navigate(base);
  };
  const act = (decision: PostedDecision) => {
    if (target === null) return;
    setDialog((open) => (open === "categories" ? open : null));
    const leads = postedLeadsTo(decision, target.standing);
    decide(decision, [target], said(decision, { members, categories, subject: target.subject }));
    if (leads !== null && leads !== standing) goOn();
  };
  const ask = (kind: DialogKind) => target !== null && mayDecide && setDialog(kind);
  const when = (work: () => void) => (mayDecide && target !== null ? work : undefined);

  useKeys({
    j: () => go(at < 0 && openId === null ? (shown[0] ?? null) : neighbour(1)),
    k: () => go(neighbour(-1)),
    Enter: openId === null && target !== null ? () => navigate(`${base}/${target.id}`) : undefined,
    Escape: openId === null ? undefined : () => (answering ? setAnswering(false) : navigate(base)),
    a: when(() => ask("assign")),
    c: when(() => ask("categories")),
    f: when(() => ask("file")),
    w: when(() => ask("expect")),
    l: when(() => ask("rest")),
    n: when(() => ask("note")),
    s: when(() => act({ kind: "settle" })),
    b: when(() => act({ kind: target?.standing === "bin" ? "restore" : "bin" })),
    r: when(() => {
      if (openId === null && target !== null) navigate(`${base}/${target.id}`);
      setAnswering(true);
    }),
    z: () => undo(),
    "?": () => setDialog("keys"),
  });

  useEffect(() => {
    if (openId !== null) setCursorId(openId);
  }, [openId]);
  const present = useCallback((row: RowView) => setOpenRow(row), []);
  const desk: ConversationDesk = {
    place: at < 0 ? null : { at: at + 1, of: shown.length },
    ask,
    act,
    present,
    goOn,
    answering,
    setAnswering,
  };

  return (
    <>
      {openId === null ? (
        <Sheet
          standing={standing}
          rows={shown}
          hasMore={hasMore}
          now={now}
          cursorId={cursorId}
          onCursor={setCursorId}
          base={base}
        />
      ) : (
        <div className="mx-2 mt-2 grid min-h-0 flex-1 grid-cols-1 border-rule sm:mx-4 sm:mt-2.5 lg:grid-cols-[252px_minmax(0,1fr)] lg:rounded-t-sheet lg:border lg:border-b-0">
          <Margin rows={shown} openId={openId} base={base} />
          <Outlet context={desk} />
        </div>
      )}
      {target !== null && dialog !== null && dialog !== "keys" && (
        <DecisionDialogs kind={dialog} row={target} onDecide={act} onClose={() => setDialog(null)} />
      )}
      {dialog === "keys" && <KeyList onClose={() => setDialog(null)} />}
    </>
  );
}
