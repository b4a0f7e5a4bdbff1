import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { useCommands } from "../keys/key-desk";
import type { WaitingView } from "../server/waiting-view.server";
import type { RowView } from "../server/words.server";
import { Button } from "../ui/button";
import { Page } from "../ui/page";
import { Select } from "../ui/select";
import { CallDialog } from "./call-dialog";
import { type PostedDecision, useDecisions, usePending, withPending } from "./decisions";
import type { DialogKind } from "./dialog-props";
import { HorizonHead, HorizonRow } from "./horizon-row";
import { DecisionDialogs } from "./lazy-dialogs";
import { RemindDialog } from "./remind-dialog";
import { saidOf } from "./said";
import { useTray } from "./tray-data";
import { useStep } from "./use-step";

type HorizonScreenProps = {
  readonly rows: readonly WaitingView[];
  readonly now: number;
  readonly reminders: readonly { readonly conversationId: string; readonly when: string }[];
};

const GROUPINGS = [
  ["", "by day"],
  ["person", "by whom we wait for"],
  ["record", "by record"],
  ["owner", "by owner"],
] as const;

/** Everything that is waited for on one axis of time. */
export function HorizonScreen({ rows: given, now, reminders }: HorizonScreenProps) {
  const { tray, members, categories, groups, mayDecide } = useTray();
  const { decide } = useDecisions();
  const pending = usePending();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState<string | null>(null);
  const [dialog, setDialog] = useState<DialogKind | "remind" | null>(null);
  const callOff = useStep("reminders");
  const grouping = params.get("by") ?? "";
  const rows = given.filter(({ row }) => withPending(row, pending).standing === "waiting");
  const lanes = lanesOf(rows, grouping, (id) => members.find((member) => member.id === id)?.name ?? "nobody");
  const order = lanes.flatMap((lane) => lane.rows);
  const at = order.findIndex(({ row }) => row.id === cursor);
  const live = order.filter(({ row }) => chosen.has(row.id));
  const under = order[at];
  const targets = live.length > 0 ? live : under === undefined ? [] : [under];
  const overdue = rows.filter(({ overWords }) => overWords !== null);
  const close = () => {
    setDialog(null);
    setChosen(new Set());
  };
  const act = (decision: PostedDecision) => {
    const target = { rows: targets.map(({ row }) => row), everything: null };
    decide(decision, target, saidOf(decision, { members, categories, groups }, target));
    close();
  };
  const ask = (what: DialogKind | "remind" | "remind-overdue") => {
    if (what === "remind-overdue") setChosen(new Set(overdue.map(({ row }) => row.id)));
    setDialog(what === "remind-overdue" ? "remind" : what);
  };
  const toggle = (ids: readonly string[]) =>
    setChosen((others) => {
      const next = new Set(others);
      const takesOff = ids.every((id) => next.has(id));
      for (const id of ids) takesOff ? next.delete(id) : next.add(id);
      return next;
    });
  const go = (step: 1 | -1) => setCursor(order[Math.min(order.length - 1, Math.max(0, at + step))]?.row.id ?? null);
  const may = mayDecide && targets.length > 0;
  useCommands({
    down: () => go(1),
    up: () => go(-1),
    open: under === undefined ? undefined : () => navigate(`/${tray.slug}/waiting/${under.row.id}`),
    choose: under === undefined ? undefined : () => toggle([under.row.id]),
    expect: may ? () => setDialog("expect") : undefined,
    settle: may ? () => act({ kind: "settle" }) : undefined,
    note: may ? () => setDialog("note") : undefined,
    assign: may ? () => setDialog("assign") : undefined,
    answer: may ? () => setDialog("remind") : undefined,
  });
  return (
    <Page
      title="Waiting for reply"
      beside={
        <>
          <Select
            label="In groups"
            value={grouping}
            choices={GROUPINGS}
            onChoose={(by) => setParams(by === "" ? {} : { by }, { replace: true })}
          />
          <HorizonTools chosen={live.length} overdue={overdue.length} ask={ask} act={act} />
        </>
      }
    >
      {rows.length === 0 ? (
        <p className="px-4 py-6 text-soft">Nothing is awaited. What you send with “Wait for a reply” is drawn here.</p>
      ) : (
        <>
          <HorizonHead now={now} />
          {lanes.map((lane) => (
            <section key={lane.name} aria-label={lane.name === "" ? "All" : lane.name}>
              {lane.name !== "" && (
                <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-3 py-0.5 text-sm font-semibold">
                  {lane.name}
                  <span className="font-normal text-soft">{lane.rows.length}</span>
                  <button
                    type="button"
                    onClick={() => toggle(lane.rows.map(({ row }) => row.id))}
                    className="font-normal text-act hover:underline"
                  >
                    choose these
                  </button>
                </h2>
              )}
              <ul>
                {lane.rows.map((view) => (
                  <HorizonRow
                    key={view.row.id}
                    view={view}
                    now={now}
                    isCursor={view.row.id === cursor}
                    isChosen={chosen.has(view.row.id)}
                    reminder={reminders.find(({ conversationId }) => conversationId === view.row.id)?.when ?? null}
                    onChoose={() => toggle([view.row.id])}
                    onCallOff={() => callOff.post({ do: "call-off", conversation: view.row.id })}
                  />
                ))}
              </ul>
            </section>
          ))}
          <p className="px-4 py-3 text-sm text-soft max-lg:hidden">
            Ring: our message. Hatched: we wait. Thick: past the expected day. Caret: expected. Sand band: when this
            correspondent usually answers, from the median until nine in ten have, in working time.
          </p>
        </>
      )}
      {dialog !== null && targets.length > 0 && (
        <AskedDialog dialog={dialog} rows={targets.map(({ row }) => row)} act={act} onClose={close} />
      )}
    </Page>
  );
}

type Lane = { readonly name: string; readonly rows: readonly WaitingView[] };

function lanesOf(rows: readonly WaitingView[], grouping: string, ownerName: (id: string | null) => string): Lane[] {
  if (grouping === "") return [{ name: "", rows }];
  const nameOf = ({ row, whoAddress }: WaitingView) => {
    if (grouping === "owner") return ownerName(row.ownerId);
    return grouping === "record" ? (row.recordCodes[0] ?? "not filed") : row.who || whoAddress;
  };
  const names = [...new Set(rows.map(nameOf))];
  return names.map((name) => ({ name, rows: rows.filter((view) => nameOf(view) === name) }));
}

type HorizonToolsProps = {
  readonly chosen: number;
  readonly overdue: number;
  readonly ask: (what: DialogKind | "remind" | "remind-overdue") => void;
  readonly act: (decision: PostedDecision) => void;
};

/** What can be done about what is chosen; with nothing chosen, about all that is overdue. */
function HorizonTools({ chosen, overdue, ask, act }: HorizonToolsProps) {
  const { tray, mayDecide } = useTray();
  return (
    <span className="ml-auto flex flex-wrap items-center gap-2">
      {mayDecide && chosen === 0 && overdue > 0 && (
        <Button look="filled" onClick={() => ask("remind-overdue")}>
          Remind {overdue} overdue…
        </Button>
      )}
      {mayDecide && chosen > 0 && (
        <>
          <span role="status" className="font-semibold">
            {chosen} chosen
          </span>
          <Button look="filled" onClick={() => ask("remind")}>
            Remind…
          </Button>
          <Button onClick={() => ask("expect")}>Another day…</Button>
          <Button onClick={() => act({ kind: "stop-expecting" })}>Stop waiting</Button>
          <Button onClick={() => ask("note")}>Note a call…</Button>
          <Button onClick={() => act({ kind: "settle" })}>Settle</Button>
        </>
      )}
      <Link to={`/${tray.slug}/waiting`} className="rounded-control px-2 py-1 text-soft hover:text-act">
        List
      </Link>
      <span className="rounded-control bg-act-soft px-2 py-1 font-semibold text-act">Horizon</span>
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
