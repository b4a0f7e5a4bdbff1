import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import { useCommands, useGo } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import type { WaitingPart, WaitingView } from "../../server/waiting/waiting-view.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { useDecisions, usePending } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import { withPending } from "../deciding/foreseen";
import { DecisionDialogs } from "../deciding/lazy-dialogs";
import type { PostedDecision } from "../deciding/posted-decision";
import { useSaidOf } from "../deciding/use-said-of";
import { useTray } from "../frame/tray-data";
import { useGrowing } from "../list/use-growing";
import { CallDialog } from "./call-dialog";
import { HorizonLane, type Lane, lanesOf } from "./horizon-lane";
import { HorizonHead } from "./horizon-row";
import { RemindDialog } from "./remind-dialog";

// As many as are reminded at once.
const MAX_REMINDED = 500;
// More is loaded before a key comes to the end of what there is.
const NEAR_END = 10;

const keyOf = ({ row }: WaitingView) => row.id;

const GROUPINGS = [
  ["", "waiting.byDay"],
  ["person", "waiting.byWhomWeWaitFor"],
  ["record", "waiting.byRecord"],
  ["owner", "waiting.byOwner"],
] as const;

/** Everything that is waited for on one axis of time. */
export function HorizonScreen({ first }: { readonly first: WaitingPart }) {
  const saidOf = useSaidOf();
  const say = useSay(waitingTexts);
  const { tray, members, categories, groups, mayDecide } = useTray();
  const { decide } = useDecisions();
  const pending = usePending();
  const goTo = useGo();
  const [params, setParams] = useSearchParams();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState<string | null>(null);
  const [dialog, setDialog] = useState<DialogKind | "remind" | null>(null);
  const grouping = params.get("by") ?? "";
  const list = useGrowing(first, `/${tray.slug}/horizon/more${grouping && `?by=${grouping}`}`, keyOf);
  const order = list.rows.filter(({ row }) => withPending(row, pending).standing === "waiting");
  const { now, overdue } = first;
  const at = order.findIndex(({ row }) => row.id === cursor);
  const live = order.filter(({ row }) => chosen.has(row.id));
  const under = order[at];
  const targets = live.length > 0 ? live : order.slice(at, at + 1);
  const close = () => {
    setDialog(null);
    setChosen(new Set());
  };
  const act = (decision: PostedDecision) => {
    const target = { rows: targets.map(({ row }) => row), everything: null };
    decide(decision, target, saidOf(decision, { members, categories, groups }, target));
    close();
  };
  // What is overdue stands first, but in lanes.
  const remindOverdue = async () => {
    const loaded = await list.load(grouping === "" ? overdue : list.total);
    const late = loaded.filter(({ overWords }) => overWords !== null).slice(0, MAX_REMINDED);
    setChosen(new Set(late.map(keyOf)));
    if (late.length > 0) setDialog("remind");
  };
  const chooseLane = async ({ name, count, rows }: Lane) => {
    const loaded = rows.length === count ? rows : await list.load(list.total);
    toggle(loaded.filter(({ lane }) => lane === name).map(keyOf));
  };
  const toggle = (ids: readonly string[]) =>
    setChosen((others) => {
      const next = new Set(others);
      const takesOff = ids.every((id) => next.has(id));
      for (const id of ids) takesOff ? next.delete(id) : next.add(id);
      return next;
    });
  const go = (step: 1 | -1) => {
    setCursor(order[Math.min(order.length - 1, Math.max(0, at + step))]?.row.id ?? null);
    if (at + NEAR_END > order.length) void list.load(order.length + 1);
  };
  const may = mayDecide && targets.length > 0;
  useCommands({
    down: () => go(1),
    up: () => go(-1),
    open: under === undefined ? undefined : () => goTo(`/${tray.slug}/waiting/${under.row.id}`),
    choose: under === undefined ? undefined : () => toggle([under.row.id]),
    expect: may ? () => setDialog("expect") : undefined,
    settle: may ? () => act({ kind: "settle" }) : undefined,
    note: may ? () => setDialog("note") : undefined,
    assign: may ? () => setDialog("assign") : undefined,
    answer: may ? () => setDialog("remind") : undefined,
  });
  return (
    <Page
      title={say("waiting.waitingForReply")}
      beside={
        <>
          <Select
            label={say("waiting.inGroups")}
            value={grouping}
            choices={saidChoices(say, GROUPINGS)}
            onChoose={(by) => setParams(by === "" ? {} : { by }, { replace: true })}
          />
          <HorizonTools
            chosen={live.length}
            overdue={Math.min(overdue, MAX_REMINDED)}
            ask={setDialog}
            remindOverdue={remindOverdue}
            act={act}
          />
        </>
      }
    >
      {order.length === 0 ? (
        <p className="px-4 py-6 text-soft">{say("waiting.nothingIsAwaitedWhatYou")}</p>
      ) : (
        <>
          <HorizonHead now={now} />
          {lanesOf(order).map((lane) => (
            <HorizonLane
              key={lane.name}
              lane={lane}
              now={now}
              cursor={cursor}
              chosen={chosen}
              onChoose={toggle}
              onChooseAll={() => void chooseLane(lane)}
            />
          ))}
          {list.problem !== null && <p className="px-4 py-3 text-late">{list.problem}</p>}
          <p className="px-4 py-3 text-sm text-soft max-lg:hidden">{say("waiting.ringOurMessageHatchedWe")}</p>
        </>
      )}
      <div ref={list.end} />
      {dialog !== null && targets.length > 0 && (
        <AskedDialog dialog={dialog} rows={targets.map(({ row }) => row)} act={act} onClose={close} />
      )}
    </Page>
  );
}

type HorizonToolsProps = {
  readonly chosen: number;
  readonly overdue: number;
  readonly ask: (what: DialogKind | "remind") => void;
  readonly remindOverdue: () => void;
  readonly act: (decision: PostedDecision) => void;
};

/** What can be done about what is chosen; with nothing chosen, about all that is overdue. */
function HorizonTools({ chosen, overdue, ask, remindOverdue, act }: HorizonToolsProps) {
  const say = useSay(waitingTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  return (
    <span className="ml-auto flex flex-wrap items-center gap-2">
      {mayDecide && chosen === 0 && overdue > 0 && (
        <Button look="filled" onClick={remindOverdue}>
          {say("waiting.remindOverdue", { overdue })}
        </Button>
      )}
      {mayDecide && chosen > 0 && (
        <>
          <span role="status" className="font-semibold">
            {say("waiting.selected", { chosen })}
          </span>
          <Button look="filled" onClick={() => ask("remind")}>
            {say("waiting.remind")}
          </Button>
          <Button onClick={() => ask("expect")}>{say("waiting.anotherDay")}</Button>
          <Button onClick={() => act({ kind: "stop-expecting" })}>{say("waiting.stopWaiting")}</Button>
          <Button onClick={() => ask("note")}>{say("waiting.noteACall")}</Button>
          <Button onClick={() => act({ kind: "settle" })}>{say("common.settle")}</Button>
        </>
      )}
      <Link to={`/${tray.slug}/waiting`} className="rounded-control px-2 py-1 text-soft hover:text-act">
        {say("waiting.list")}
      </Link>
      <span className="rounded-control bg-act-soft px-2 py-1 font-semibold text-act">{say("common.horizon")}</span>
    </span>
  );
}

type AskedDialogProps = {
  readonly dialog: DialogKind | "remind";
  readonly rows: readonly RowView[];
  readonly act: (decision: PostedDecision) => void;
  readonly onClose: () => void;
};

function AskedDialog({ dialog, rows, act, onClose }: AskedDialogProps) {
  if (dialog === "remind") return <RemindDialog rows={rows} onDone={onClose} onClose={onClose} />;
  if (dialog === "note" && rows.length === 1)
    return <CallDialog target={{ rows, everything: null }} onDecide={act} onClose={onClose} />;
  return <DecisionDialogs kind={dialog} target={{ rows, everything: null }} onDecide={act} onClose={onClose} />;
}
