import { useState } from "react";
import { Link } from "react-router";
import { LOOSE_END_NAMES, LOOSE_ENDS, REMEDIES, type Remedy } from "../../../core/loose-ends/loose-end";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import type { PlainKey } from "../../../texts/say";
import { useCommands, useGo } from "../../keys/key-desk";
import type { LooseEndsPart } from "../../server/waiting/loose-ends-view.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { TurnLine } from "../../ui/turn-line";
import { useDecisions } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import { DecisionDialogs } from "../deciding/lazy-dialogs";
import type { PostedDecision } from "../deciding/posted-decision";
import { useSaidOf } from "../deciding/use-said-of";
import { OwnDraftRow } from "../drafts/own-draft-row";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import { useGrowing } from "../list/use-growing";
import { CallDialog } from "./call-dialog";
import { NoLooseEndDialog } from "./no-loose-end-dialog";
import { RemindDialog } from "./remind-dialog";
import { StoppedOnes } from "./stopped-ones";

type LooseEnd = LooseEndsPart["rows"][number];

type Asked = { readonly end: LooseEnd; readonly dialog: DialogKind | "remind" | "call" | "none" };

const NAMES: Readonly<Record<Remedy, PlainKey<typeof waitingTexts & typeof commonTexts>>> = {
  remind: "waiting.remind",
  call: "waiting.call",
  "wait-longer": "waiting.waitLonger",
  "stop-waiting": "waiting.stopWaiting",
  assign: "waiting.assign",
  answer: "common.open",
  settle: "common.settle",
  done: "common.open",
  restore: "common.bringBack",
  reopen: "waiting.waitAgain",
};

const keyOf = ({ kind, row }: LooseEnd) => `${kind} ${row.id}`;
// More is loaded before a key comes to the end of what there is.
const NEAR_END = 10;

/** What would be forgotten: each with why, what to do about it, and the means to say that it is none. */
export function LooseEndsScreen({ first }: { readonly first: LooseEndsPart }) {
  const saidOf = useSaidOf();
  const say = useSay(waitingTexts, commonTexts);
  const { tray, members, categories, groups, mayDecide } = useTray();
  const { decide } = useDecisions();
  const goTo = useGo();
  const [cursor, setCursor] = useState<string | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const list = useGrowing(first, `/${tray.slug}/loose-ends/more`, keyOf);
  const { rows: order } = list;
  const total = list.total + first.stopped.length;
  const at = order.findIndex((end) => keyOf(end) === cursor);
  const under = order[at];
  const act = ({ row }: LooseEnd, decision: PostedDecision) => {
    const target = { rows: [row], everything: null };
    decide(decision, target, saidOf(decision, { members, categories, groups }, target));
    setAsked(null);
  };
  const remedy = (end: LooseEnd, what: Remedy) => {
    const ways: Readonly<Record<Remedy, () => void>> = {
      remind: () => setAsked({ end, dialog: "remind" }),
      call: () => setAsked({ end, dialog: "call" }),
      "wait-longer": () => setAsked({ end, dialog: "expect" }),
      reopen: () => setAsked({ end, dialog: "expect" }),
      "stop-waiting": () => act(end, { kind: "stop-expecting" }),
      assign: () => setAsked({ end, dialog: "assign" }),
      settle: () => act(end, { kind: "settle" }),
      restore: () => act(end, { kind: "restore" }),
      answer: () => goTo(`/${tray.slug}/${end.row.standing}/${end.row.id}`),
      done: () => goTo(`/${tray.slug}/${end.row.standing}/${end.row.id}`),
    };
    ways[what]();
  };
  const go = (step: 1 | -1) => {
    const next = order[Math.min(order.length - 1, Math.max(0, at + step))];
    setCursor(next === undefined ? null : keyOf(next));
    if (at + NEAR_END > order.length) void list.load(order.length + 1);
  };
  const remedies = under === undefined ? [] : REMEDIES[under.kind];
  const [firstRemedy] = remedies;
  const may = mayDecide && under !== undefined;
  useCommands({
    down: () => go(1),
    up: () => go(-1),
    open: under === undefined ? undefined : () => goTo(`/${tray.slug}/${under.row.standing}/${under.row.id}`),
    "accept-1": may && firstRemedy !== undefined ? () => remedy(under, firstRemedy) : undefined,
    "no-answer": may ? () => setAsked({ end: under, dialog: "none" }) : undefined,
    settle: may ? () => act(under, { kind: "settle" }) : undefined,
    assign: may ? () => setAsked({ end: under, dialog: "assign" }) : undefined,
    expect: may ? () => setAsked({ end: under, dialog: "expect" }) : undefined,
  });
  return (
    <Page
      title={say("common.looseEnds")}
      beside={<span className="text-soft">{total === 0 ? "" : say("waiting.whatWouldBeForgotten1")}</span>}
    >
      {total === 0 && <p className="px-4 py-6 text-soft">{say("waiting.nothingWouldBeForgottenEverything")}</p>}
      <StoppedOnes stopped={first.stopped} />
      {LOOSE_ENDS.map((kind) => {
        const own = order.filter((end) => end.kind === kind);
        if (own.length === 0) return null;
        return (
          <section key={kind} aria-label={say(LOOSE_END_NAMES[kind])}>
            <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
              {say(LOOSE_END_NAMES[kind])} <span className="font-normal text-soft">{own[0]?.inKind}</span>
            </h2>
            <ul>
              {own.map((end) => (
                <Line
                  key={keyOf(end)}
                  end={end}
                  now={first.now}
                  isCursor={keyOf(end) === cursor}
                  onRemedy={(what) => remedy(end, what)}
                  onNone={() => setAsked({ end, dialog: "none" })}
                />
              ))}
            </ul>
          </section>
        );
      })}
      {list.problem !== null && <p className="px-4 py-3 text-late">{list.problem}</p>}
      <div ref={list.end} />
      <LyingDrafts drafts={first.drafts} />
      {asked !== null && <AskedDialog asked={asked} act={act} onClose={() => setAsked(null)} />}
    </Page>
  );
}

type AskedDialogProps = {
  readonly asked: Asked;
  readonly act: (end: LooseEnd, decision: PostedDecision) => void;
  readonly onClose: () => void;
};

function AskedDialog({ asked: { end, dialog }, act, onClose }: AskedDialogProps) {
  if (dialog === "none") return <NoLooseEndDialog kind={end.kind} row={end.row} onClose={onClose} />;
  if (dialog === "remind") return <RemindDialog rows={[end.row]} onDone={onClose} onClose={onClose} />;
  const asked = {
    target: { rows: [end.row], everything: null },
    onDecide: (decision: PostedDecision) => act(end, decision),
    onClose,
  };
  return dialog === "call" ? <CallDialog {...asked} /> : <DecisionDialogs kind={dialog} {...asked} />;
}

type LineProps = {
  readonly end: LooseEnd;
  readonly now: number;
  readonly isCursor: boolean;
  readonly onRemedy: (remedy: Remedy) => void;
  readonly onNone: () => void;
};

function Line({ end: { kind, row, words }, now, isCursor, onRemedy, onNone }: LineProps) {
  const say = useSay(waitingTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  return (
    <li
      aria-current={isCursor ? "true" : undefined}
      className={`grid min-h-11 items-center gap-x-3 gap-y-1 border-b border-hair px-4 py-1 sm:grid-cols-[150px_minmax(0,1fr)_30px_auto] lg:grid-cols-[144px_minmax(0,1fr)_140px_30px_496px] ${isCursor ? "bg-ground shadow-[inset_3px_0_0_var(--act)]" : ""}`}
    >
      <span className="truncate">{row.who}</span>
      <span className="min-w-0">
        <Link to={`/${tray.slug}/${row.standing}/${row.id}`} className="block truncate font-serif hover:text-act">
          {row.subject || say("common.noSubject")}
        </Link>
        <span className="block text-sm text-soft sm:truncate">{words}</span>
      </span>
      <span className="hidden lg:block">
        <TurnLine
          marks={row.marks}
          turn={row.turn}
          turnSince={row.turnSince}
          standing={row.standing}
          expectedAt={row.expectedAt}
          now={now}
        />
      </span>
      <span className="hidden sm:block">
        <OwnerBadge ownerId={row.ownerId} isCovered={row.isCovered} />
      </span>
      {mayDecide && (
        <span className="flex flex-wrap items-center gap-1">
          {REMEDIES[kind].map((remedy, at) => (
            <Button
              key={remedy}
              look={at === 0 ? "outline" : "quiet"}
              className="h-7 px-2 text-sm"
              aria-label={`${say(NAMES[remedy]).replace("…", "")}: ${row.subject}`}
              onClick={() => onRemedy(remedy)}
            >
              {say(NAMES[remedy])}
            </Button>
          ))}
          <Button
            look="quiet"
            className="h-7 px-2 text-sm"
            aria-label={say("waiting.notALooseEnd", { subject: row.subject })}
            onClick={onNone}
          >
            {say("waiting.notALooseEndAsks")}
          </Button>
        </span>
      )}
    </li>
  );
}

/** What one began long ago and neither sent nor threw away; nobody else sees it. */
function LyingDrafts({ drafts }: Pick<LooseEndsPart, "drafts">) {
  const say = useSay(waitingTexts);
  if (drafts.length === 0) return null;
  return (
    <section aria-label={say("waiting.unsentDrafts")}>
      <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
        {say("waiting.unsentDrafts")} <span className="font-normal text-soft">{drafts.length}</span>
      </h2>
      <ul>
        {drafts.map((draft) => (
          <OwnDraftRow key={draft.id} draft={draft} />
        ))}
      </ul>
    </section>
  );
}
