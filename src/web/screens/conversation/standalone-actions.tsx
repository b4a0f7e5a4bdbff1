import { type ReactNode, useCallback, useState } from "react";
import { useCommands, useGo } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import { useDecisions, usePending } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import { withPending } from "../deciding/foreseen";
import { DecisionDialogs, useDialogsSoon } from "../deciding/lazy-dialogs";
import type { DecisionTarget, PostedDecision } from "../deciding/posted-decision";
import { useSaidOf } from "../deciding/use-said-of";
import { useTray } from "../frame/tray-data";
import { useDecidingCommands } from "../list/list-commands";
import type { ConversationDesk } from "../list/list-screen";

/** The desk of a conversation that is open by itself, outside the lists of a standing: its keys and its dialogs. */
export function useStandaloneActions(
  openId: string | null,
  back: string,
): { desk: ConversationDesk; dialogs: ReactNode } {
  const saidOf = useSaidOf();
  const tray = useTray();
  useDialogsSoon();
  const { decide } = useDecisions();
  const pending = usePending();
  const go = useGo();
  const [row, setRow] = useState<RowView | null>(null);
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  const [answering, setAnswering] = useState(false);
  const present = useCallback((presented: RowView) => setRow(presented), []);
  const shown = row === null || row.id !== openId ? null : withPending(row, pending);
  const target: DecisionTarget | null = shown === null ? null : { rows: [shown], everything: null };
  const act = (decision: PostedDecision) => {
    if (target === null) return;
    setDialog((open) => (open === "categories" ? open : null));
    decide(decision, target, saidOf(decision, tray, target));
  };
  const ask = (kind: DialogKind) => target !== null && tray.mayDecide && setDialog(kind);
  useCommands({ back: openId === null ? undefined : () => (answering ? setAnswering(false) : go(back)) });
  useDecidingCommands({ first: tray.mayDecide ? shown : null, ask, act, answer: () => setAnswering(true) });
  const dialogs = target !== null && dialog !== null && (
    <DecisionDialogs kind={dialog} target={target} onDecide={act} onClose={() => setDialog(null)} />
  );
  const goOn = () => go(back);
  return { desk: { place: null, ask, act, present, goOn, answering, setAnswering }, dialogs };
}
