import { useState } from "react";
import { Link } from "react-router";
import { BACKLOG_AGE_NAMES, BACKLOG_AGES, type BacklogAge, isBacklogAge } from "../../../core/lists/backlog";
import { getBacklog } from "../../../operations/index.server";
import { useDecisions } from "../../screens/deciding/decisions";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/words.server";
import { type ProposedSettling, proposalView } from "../../server/list/backlog-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import type { Route } from "./+types/backlog";

const USUAL: BacklogAge = "quarter";

export function meta() {
  return [{ title: "Older mail · Common Tray" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const asked = new URL(request.url).searchParams.get("older") ?? "";
  const age = isBacklogAge(asked) ? asked : USUAL;
  const reading = readingOf(context.get(memberContext), deps.now());
  return { age, proposals: (await getBacklog(deps, grant, age)).map((one) => proposalView(one, reading)) };
}

const SECTIONS = [
  ["list", "By list"],
  ["person", "By person"],
  ["age", "By age, whoever wrote"],
] as const;

/** Older mail that nobody has sorted: what of it can be settled in one go, and why. Nothing happens before it is confirmed. */
export default function Backlog({ loaderData: { age, proposals } }: Route.ComponentProps) {
  const [asked, setAsked] = useState<ProposedSettling | null>(null);
  return (
    <main
      aria-label="Older mail"
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule px-4 py-2">
        <h1 className="font-serif text-xl">Work through older mail</h1>
        <nav aria-label="How old" className="flex items-baseline gap-1 text-sm">
          <span className="text-soft">older than</span>
          {BACKLOG_AGES.map((each) => (
            <Link
              key={each}
              to={`?older=${each}`}
              preventScrollReset
              aria-current={each === age ? "page" : undefined}
              className={`rounded-control px-1.5 py-0.5 ${each === age ? "bg-act-soft font-semibold text-act" : "text-soft hover:text-ink"}`}
            >
              {BACKLOG_AGE_NAMES[each]}
            </Link>
          ))}
        </nav>
      </div>
      {proposals.length === 0 && (
        <p className="max-w-[62ch] px-4 py-6 text-soft">
          Nothing in To sort is older than {BACKLOG_AGE_NAMES[age]}. Old mail that you import stands here until it is
          decided about.
        </p>
      )}
      {SECTIONS.map(([kind, name]) => {
        const some = proposals.filter((one) => one.kind === kind);
        if (some.length === 0) return null;
        return (
          <section key={kind} aria-label={name}>
            <h2 className="border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">{name}</h2>
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
          View {count === 1 ? "it" : `all ${count.toLocaleString("en")}`}
        </Link>
        {mayDecide && (
          <Button className="min-w-28 justify-center" onClick={onSettle}>
            Settle {count.toLocaleString("en")}…
          </Button>
        )}
      </div>
    </li>
  );
}

function Confirm({ proposal, onClose }: { proposal: ProposedSettling; onClose: () => void }) {
  const { decide } = useDecisions();
  const { title, count, samples, query } = proposal;
  const number = count.toLocaleString("en");
  const settle = () => {
    const everything = { scope: "to-sort", query, lane: null, count } as const;
    decide({ kind: "settle" }, { rows: [], everything }, `Settled: ${number} older, ${title}`);
    onClose();
  };
  return (
    <Dialog open title={`Settle ${number} conversations?`} description={title} onOpenChange={onClose}>
      <div className="px-4 py-3">
        <ul className="text-soft">
          {samples.map((subject) => (
            <li key={subject} className="truncate">
              {subject}
            </li>
          ))}
          {count > samples.length && <li>and {(count - samples.length).toLocaleString("en")} more</li>}
        </ul>
        <p className="mt-3 text-sm text-soft">
          They leave To sort, stay in the search and under Settled, and come back by themselves when somebody writes.
          All of it can be undone together.
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="filled" autoFocus onClick={settle}>
            Settle {number}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
