import { useState } from "react";
import { useLocation, useNavigate, useSearchParams } from "react-router";
import { type MemberId, readId } from "../../../core/kernel/ids";
import { instant } from "../../../core/kernel/instant";
import { getJournal, JOURNAL_KINDS, type JournalKind } from "../../../operations/index.server";
import { officeTexts } from "../../../texts/en/office";
import { useDecisions } from "../../screens/deciding/decisions";
import { useTray } from "../../screens/frame/tray-data";
import { JournalFilters } from "../../screens/office/journal-filters";
import { JournalStep } from "../../screens/office/journal-step";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { journalSteps } from "../../server/office/journal-view.server";
import { Button } from "../../ui/button";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/journal";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.journal");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const query = new URL(request.url).searchParams;
  const asked = query.get("by") ?? "";
  const id = readId<MemberId>(asked);
  const kind = query.get("kind") ?? "";
  const before = Number(query.get("before") ?? Number.NaN);
  const page = await getJournal(deps, grant, {
    by: asked === "tray" ? "tray" : id.ok ? id.value : null,
    kind: Object.hasOwn(JOURNAL_KINDS, kind) ? (kind as JournalKind) : null,
    before: Number.isFinite(before) && before > 0 ? instant(before) : null,
  });
  return {
    hasMore: page.hasMore,
    kinds: Object.keys(JOURNAL_KINDS),
    steps: journalSteps(page, readingOf(context.get(memberContext), deps.now())),
  };
}

export default function Journal({ loaderData: { steps, hasMore, kinds } }: Route.ComponentProps) {
  const say = useSay(officeTexts);
  const { undo } = useDecisions();
  const { mayDecide } = useTray();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [params] = useSearchParams();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<number | null>(null);
  const undoable = steps.filter(({ mayUndo }) => mayUndo);
  const live = undoable.filter(({ batchId }) => chosen.has(batchId));
  const toggle = (at: number, extend: boolean) => {
    const [from, to] = extend && anchor !== null ? [Math.min(anchor, at), Math.max(anchor, at)] : [at, at];
    const ids = steps.slice(from, to + 1).flatMap(({ batchId, mayUndo }) => (mayUndo ? [batchId] : []));
    setAnchor(at);
    setChosen((others) => {
      const next = new Set(others);
      const takesOff = !extend && ids.every((id) => next.has(id));
      for (const id of ids) takesOff ? next.delete(id) : next.add(id);
      return next;
    });
  };
  const undoChosen = () => {
    undo(live.map(({ batchId }) => batchId));
    setChosen(new Set());
  };
  const last = steps.at(-1);
  return (
    <main
      aria-label={say("office.journal")}
      className="mx-2 mt-2.5 flex min-h-0 flex-1 flex-col rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-4 py-1.5">
        <h1 className="font-serif text-xl">{say("office.journal")}</h1>
        <JournalFilters kinds={kinds} />
        {mayDecide && (
          <span className="ml-auto flex items-center gap-2">
            {undoable.length > 0 && (
              <Button
                look="quiet"
                onClick={() =>
                  setChosen(new Set(live.length === undoable.length ? [] : undoable.map(({ batchId }) => batchId)))
                }
              >
                {live.length === undoable.length
                  ? say("office.clearSelection")
                  : say("office.selectAll", { count: undoable.length })}
              </Button>
            )}
            <Button look="filled" disabled={live.length === 0} onClick={undoChosen}>
              {live.length === 0 ? say("office.undoSelected") : say("office.undoSteps", { count: live.length })}
            </Button>
          </span>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto [scrollbar-width:thin]">
        {steps.length === 0 && <p className="px-4 py-6 text-soft">{say("office.noJournalEntriesMatch")}</p>}
        <ol>
          {steps.map((step, at) => (
            <JournalStep
              key={step.batchId}
              step={step}
              heading={step.day === steps[at - 1]?.day ? null : step.day}
              isSelected={chosen.has(step.batchId)}
              onToggle={(extend) => toggle(at, extend)}
              onUndo={() => undo(step.batchId)}
            />
          ))}
        </ol>
        {hasMore && last !== undefined && (
          <p className="px-4 py-3">
            <Button
              onClick={() =>
                navigate(
                  `${pathname}?${new URLSearchParams([...params].filter(([name]) => name !== "before").concat([["before", String(last.at)]]))}`,
                )
              }
            >
              {say("office.earlierSteps")}
            </Button>
          </p>
        )}
      </div>
    </main>
  );
}
