import { useState } from "react";
import { Link } from "react-router";
import { BACKLOG_AGE_NAMES, BACKLOG_AGES, type BacklogAge, isBacklogAge } from "../../../core/lists/backlog";
import { getBacklog } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { useDecisions } from "../../screens/deciding/decisions";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { type ProposedSettling, proposalView } from "../../server/list/backlog-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/backlog";

const USUAL: BacklogAge = "quarter";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, listTexts, "list.olderMail");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const asked = new URL(request.url).searchParams.get("older") ?? "";
  const age = isBacklogAge(asked) ? asked : USUAL;
  const reading = readingOf(context.get(memberContext), deps.now());
  return { age, proposals: (await getBacklog(deps, grant, age)).map((one) => proposalView(one, reading)) };
}

const SECTIONS = [
  ["list", "list.byList"],
  ["person", "list.byPerson"],
  ["age", "list.byAgeWhoeverWrote"],
] as const;

/** Older mail that nobody has sorted: what of it can be settled in one go, and why. Nothing happens before it is confirmed. */
export default function Backlog({ loaderData: { age, proposals } }: Route.ComponentProps) {
  const say = useSay(listTexts);
  const [asked, setAsked] = useState<ProposedSettling | null>(null);
  return (
    <main
      aria-label={say("list.olderMail")}
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule px-4 py-2">
        <h1 className="font-serif text-xl">{say("list.workThroughOlderMail")}</h1>
        <nav aria-label={say("list.howOld")} className="flex items-baseline gap-1 text-sm">
          <span className="text-soft">{say("list.olderThan")}</span>
          {BACKLOG_AGES.map((each) => (
            <Link
              key={each}
              to={`?older=${each}`}
              preventScrollReset
              aria-current={each === age ? "page" : undefined}
              className={`rounded-control px-1.5 py-0.5 ${each === age ? "bg-act-soft font-semibold text-act" : "text-soft hover:text-ink"}`}
            >
              {say(BACKLOG_AGE_NAMES[each])}
            </Link>
          ))}
        </nav>
      </div>
      {proposals.length === 0 && (
        <p className="max-w-[62ch] px-4 py-6 text-soft">
          {say("list.nothingInToSortIs", { name: BACKLOG_AGE_NAMES[age] })}
        </p>
      )}
      {SECTIONS.map(([kind, name]) => {
        const some = proposals.filter((one) => one.kind === kind);
        if (some.length === 0) return null;
        return (
          <section key={kind} aria-label={say(name)}>
            <h2 className="border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">{say(name)}</h2>
            <ul>
              {some.map((one) => (
                <Proposed key={one.key} proposal={one} onSettle={() => setAsked(one)} />
              ))}
            </ul>
          </section>
        );
      })}
      {asked !== null && <Confirm proposal={asked} onClose={() => setAsked(null)} />}
    </main>
  );
}

function Proposed({ proposal, onSettle }: { proposal: ProposedSettling; onSettle: () => void }) {
  const say = useSay(listTexts);
  const { tray, mayDecide } = useTray();
  const { title, detail, count, reason, when, samples, query } = proposal;
  return (
    <li
      aria-label={title}
      className="grid items-center gap-x-4 gap-y-1 border-b border-hair px-4 py-2 sm:grid-cols-[minmax(0,240px)_minmax(0,1fr)_auto]"
    >
      <div className="min-w-0">
        <p className="truncate font-semibold">{title}</p>
        <p className="truncate text-sm text-soft">{detail || when}</p>
      </div>
      <div className="min-w-0">
        <p>
          {reason} {detail !== "" && <span className="text-sm text-soft">{when}</span>}
        </p>
        <p className="truncate text-sm text-soft">{samples.join(" · ")}</p>
      </div>
      <div className="flex items-center justify-end gap-2">
        <Link to={`/${tray.slug}/to-sort?${query}`} className="text-act hover:underline">
          {say("list.viewAll", { count })}
        </Link>
        {mayDecide && (
          <Button className="min-w-28 justify-center" onClick={onSettle}>
            {say("list.settle", { count })}
          </Button>
        )}
      </div>
    </li>
  );
}

function Confirm({ proposal, onClose }: { proposal: ProposedSettling; onClose: () => void }) {
  const say = useSay(listTexts, commonTexts);
  const { decide } = useDecisions();
  const { title, count, samples, query } = proposal;
  const number = say({ figure: count });
  const settle = () => {
    const everything = { scope: "to-sort", query, lane: null, count } as const;
    decide({ kind: "settle" }, { rows: [], everything }, say("list.settledOlder", { number, title }));
    onClose();
  };
  return (
    <Dialog open title={say("list.settleConversations", { number })} description={title} onOpenChange={onClose}>
      <div className="px-4 py-3">
        <ul className="text-soft">
          {samples.map((subject) => (
            <li key={subject} className="truncate">
              {subject}
            </li>
          ))}
          {count > samples.length && <li>{say("list.andMore", { count: { figure: count - samples.length } })}</li>}
        </ul>
        <p className="mt-3 text-sm text-soft">{say("list.theyLeaveToSortStay")}</p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>{say("common.cancel")}</Button>
          <Button look="filled" autoFocus onClick={settle}>
            {say("list.settleNumber", { number })}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
