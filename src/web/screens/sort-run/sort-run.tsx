import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type ComponentProps, memo, type RefObject, startTransition, useCallback, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { RUN_ORDER_NAMES, RUN_ORDERS, type RunOrder } from "../../../core/lists/run-order";
import { isInScope, type Scope, scopeName } from "../../../core/lists/scope";
import type { StandingKind } from "../../../core/standing/standing";
import { commonTexts } from "../../../texts/en/common";
import { sortRunTexts } from "../../../texts/en/sort-run";
import { keyCap } from "../../keys/commands";
import { Opening, useCommands, useGo, useKeyOf } from "../../keys/key-desk";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import { KeyCap } from "../../ui/button";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { PresenceLine } from "../conversation/presence-line";
import { isStillProposed } from "../conversation/proposals";
import { usePresence } from "../conversation/use-presence";
import { useDecisions, usePending } from "../deciding/decisions";
import type { DialogKind } from "../deciding/dialog-props";
import { postedResultingStanding, withPending } from "../deciding/foreseen";
import { DecisionDialogs, useDialogsSoon } from "../deciding/lazy-dialogs";
import type { DecisionTarget, PostedDecision, SingleDecision } from "../deciding/posted-decision";
import { useSaidOf } from "../deciding/use-said-of";
import { useTray } from "../frame/tray-data";
import { useDecidingCommands } from "../list/list-commands";
import { AnswerComposer } from "../writing/answer-composer";
import { useRecall } from "../writing/use-recall";
import { DecisionActions } from "./decision-actions";
import { RunChips } from "./run-chips";
import { RunDocket } from "./run-docket";
import { SortRunMessage } from "./sort-run-message";
import { type Run, type RunStart, useRun } from "./use-run";

/** One conversation at a time with full attention, five ways out, and the next is there. */
export const SortRun = memo(function SortRun({ start }: { start: RunStart }) {
  const saidOf = useSaidOf();
  const say = useSay(sortRunTexts, commonTexts);
  const tray = useTray();
  useDialogsSoon();
  const { decide, undo } = useDecisions();
  const pending = usePending();
  const go = useGo();
  const run = useRun(tray.tray.slug, start);
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  const [answering, setAnswering] = useState(false);
  const takeBack = useRef<TakeBack>(() => {});
  const back = useCallback(() => setAnswering(true), []);
  const { current } = run;
  const row = current === null ? null : withPending(run.view?.row ?? current, pending);
  const target: DecisionTarget | null = row === null ? null : { rows: [row], everything: null };
  // Another conversation begins without the dialogs of the last, and draws none of them for a moment first: what opens
  // would have the next keys.
  const [begunWith, setBegunWith] = useState(current?.id);
  if (begunWith !== current?.id) {
    setBegunWith(current?.id);
    setDialog(null);
    setAnswering(false);
  }

  const act = (decision: PostedDecision) => {
    if (target === null || row === null) return;
    setDialog((open) => (open === "categories" ? open : null));
    const send = () => decide(decision, target, saidOf(decision, tray, target));
    if (!leadsOn(decision, row.standing, start.scope)) return send();
    run.goOn();
    // The next conversation first; what is no longer in sight is sent off after it.
    startTransition(send);
  };
  const proposals = row === null ? [] : (run.view?.proposals ?? []).filter((one) => isStillProposed(one, row));
  const all = allAccepted(proposals);
  const offer = {
    proposals,
    onAccept: act,
    onAcceptAll: () => all !== null && act(all),
    goesOn: leadsOn(all, row?.standing, start.scope),
  };
  const ask = (kind: DialogKind) => target !== null && tray.mayDecide && setDialog(kind);
  const when = (work: () => void) => (target !== null && tray.mayDecide && !answering ? work : undefined);
  const accept = (at: number) => acceptance(proposals[at], (decision) => when(() => act(decision)));
  useCommands({
    skip: current === null ? undefined : run.skip,
    up: run.decided === 0 ? undefined : run.back,
    back: () => (answering ? setAnswering(false) : go(`/${tray.tray.slug}/${start.scope}`)),
    "accept-1": accept(0),
    "accept-2": accept(1),
    "accept-3": accept(2),
    "accept-4": accept(3),
    "accept-all": all === null ? undefined : when(() => act(all)),
  });
  useDecidingCommands({ first: tray.mayDecide && !answering ? row : null, ask, act, answer: () => setAnswering(true) });
  const sent = ({ messageId, holdMs }: { messageId: string; holdMs: number }) => {
    const action = { label: say("common.takeBack"), onClick: () => takeBack.current(messageId) };
    notice(say("sortRun.answered"), holdMs === 0 ? {} : { action, duration: holdMs });
    run.goOn();
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <TakingBack into={takeBack} onBack={back} />
      <RunHead run={run} start={start} onUndo={() => undo()} />
      {row === null ? (
        <RunOver decided={run.decided} scope={say(scopeName(start.scope))} back={`/${tray.tray.slug}/${start.scope}`} />
      ) : (
        <div className="mx-2 flex min-h-0 flex-1 flex-col sm:mx-4 lg:grid lg:grid-cols-[minmax(0,1fr)_336px] lg:gap-4">
          <div className="flex min-h-0 flex-1 flex-col">
            <RunPresence key={row.id} conversationId={row.id} isWriting={answering} />
            <Paper run={run} />
            {answering && (
              <RunComposer view={run.view} onClose={() => setAnswering(false)} onSent={sent} onPlanned={run.goOn} />
            )}
          </div>
          <RunChips {...offer} />
          <RunDocket row={row} view={run.view} queue={run.queue} {...offer} />
        </div>
      )}
      {row !== null && !answering && (
        <DecisionActions
          row={row}
          proposals={proposals}
          onAnswer={() => setAnswering(true)}
          ask={ask}
          bin={() => act({ kind: "bin" })}
          settle={() => act({ kind: "settle" })}
        />
      )}
      {target !== null && dialog !== null && (
        <DecisionDialogs kind={dialog} target={target} onDecide={act} onClose={() => setDialog(null)} />
      )}
    </div>
  );
});

function Paper({ run: { view, problem, isTaken } }: { run: ReturnType<typeof useRun> }) {
  const say = useSay(sortRunTexts);
  if (view !== null) return <SortRunMessage key={view.row.id} view={view} isTaken={isTaken} />;
  return (
    <main className="flex-1 rounded-t-sheet border border-b-0 border-rule bg-paper px-6 py-6 text-soft lg:px-14">
      {problem ?? say("sortRun.fetchingTheConversation")}
    </main>
  );
}

// What is proposed as one decision; what puts it away goes last, as the others are about it while it is still here.
function allAccepted(proposals: readonly ProposalView[]): PostedDecision | null {
  const putsAway = (one: SingleDecision) => Number(postedResultingStanding(one, "to-sort") === "settled");
  const decisions = proposals.map(({ decision }) => decision).toSorted((a, b) => putsAway(a) - putsAway(b));
  const [only = null] = decisions;
  return decisions.length > 1 ? { kind: "accept", decisions } : only;
}

// Whether a conversation is none of the run any more after a decision.
function leadsOn(decision: PostedDecision | null, from: StandingKind | undefined, scope: Scope): boolean {
  if (decision === null || from === undefined) return false;
  const leads = postedResultingStanding(decision, from);
  return leads !== null && !isInScope(leads, scope);
}

function acceptance<T>(proposal: ProposalView | undefined, make: (decision: PostedDecision) => T): T | undefined {
  return proposal === undefined ? undefined : make(proposal.decision);
}

function RunHead({ run, start, onUndo }: { run: ReturnType<typeof useRun>; start: RunStart; onUndo: () => void }) {
  const say = useSay(sortRunTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const keyName = useKeyOf();
  const { left } = run;
  const all = left + run.decided;
  const minutes = run.paceMs === null ? null : Math.ceil((run.paceMs * left) / 60_000);
  const pace = minutes === null || left === 0 ? "" : say("sortRun.aboutMinutesAtYourPace", { minutes });
  const counted = start.scope === "to-sort" ? "" : say("sortRun.of", { name: scopeName(start.scope) });
  return (
    <header className="mx-4 shrink-0 pt-2">
      <div className="flex h-9 items-center gap-4">
        <h1 className="font-serif text-xl whitespace-nowrap max-sm:sr-only">{say("sortRun.sortRun", { counted })}</h1>
        <p role="status" className="min-w-0 truncate text-soft max-sm:text-ink">
          {say("sortRun.leftOf", { left, all })}
          <span className="max-lg:hidden">{pace}</span>
        </p>
        <span className="ml-auto flex shrink-0 items-center sm:gap-2">
          <DropdownMenu.Root>
            <DropdownMenu.Trigger className="flex h-8 items-center gap-1 rounded-control px-2 text-soft hover:text-ink">
              {say(RUN_ORDER_NAMES[start.order as RunOrder])} <ChevronDown size={13} aria-hidden />
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content className={MENU} align="end">
                {RUN_ORDERS.map((order) => (
                  <DropdownMenu.Item
                    key={order}
                    className={MENU_ITEM}
                    onSelect={() => navigate(`/${tray.slug}/sort-run/${start.scope}?order=${order}`)}
                  >
                    {say(RUN_ORDER_NAMES[order])}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
          <button
            type="button"
            onClick={run.skip}
            className="hidden h-8 items-center gap-2 px-2 text-soft hover:text-ink sm:flex"
          >
            {say("sortRun.skip")} <KeyCap>{keyCap(keyName("skip"))}</KeyCap>
          </button>
          <button type="button" onClick={onUndo} className="flex h-8 items-center gap-2 px-2 text-soft hover:text-ink">
            {say("common.undo")} <KeyCap>{keyCap(keyName("undo"))}</KeyCap>
          </button>
          <Link
            to={`/${tray.slug}/${start.scope}`}
            className="flex h-8 items-center gap-2 px-2 text-soft hover:text-ink"
          >
            {say("sortRun.leave")} <KeyCap>{keyCap(keyName("back"))}</KeyCap>
          </Link>
        </span>
      </div>
      <div aria-hidden className="mt-0.5 mb-2.5 h-[3px] bg-rule">
        <div className="h-full bg-act" style={{ width: `${all === 0 ? 100 : (100 * run.decided) / all}%` }} />
      </div>
    </header>
  );
}

function RunOver({ decided, scope, back }: { decided: number; scope: string; back: string }) {
  const say = useSay(sortRunTexts);
  return (
    <main className="flex min-h-0 flex-1 flex-col items-center justify-center gap-3 px-6 text-center">
      <h2 className="font-serif text-[26px]">
        {decided === 0 ? say("sortRun.thereIsNothingToSort") : say("sortRun.everythingIsDecided")}
      </h2>
      <p className="max-w-sm text-soft">
        {decided === 0
          ? say("sortRun.nothingStandsInNowNew", { scope })
          : say("sortRun.conversationsInThisRunWhat", { decided })}
      </p>
      <Link to={back} className="font-semibold text-act underline-offset-2 hover:underline">
        {say("sortRun.backTo", { scope })}
      </Link>
    </main>
  );
}

type RunComposerProps = Pick<ComponentProps<typeof AnswerComposer>, "onClose" | "onSent" | "onPlanned"> & {
  /** Null until the conversation is there. */
  readonly view: Run["view"];
};

function RunComposer({ view, ...how }: RunComposerProps) {
  if (view === null) return <Opening />;
  return <AnswerComposer view={view} shared={view.drafts.find(({ isMine }) => isMine) ?? null} {...how} />;
}

type TakeBack = ReturnType<typeof useRecall>;

// Of its own, as it is drawn anew with every step of every request, which the run must not be.
const TakingBack = memo(function TakingBack({ into, onBack }: { into: RefObject<TakeBack>; onBack: () => void }) {
  into.current = useRecall(onBack);
  return null;
});

function RunPresence({ conversationId, isWriting }: { conversationId: string; isWriting: boolean }) {
  return <PresenceLine present={usePresence(conversationId, isWriting ? "writing" : "looking")} />;
}
