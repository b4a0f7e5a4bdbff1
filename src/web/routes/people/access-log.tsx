import { Link, useLocation, useSearchParams } from "react-router";
import { DAY } from "../../../core/kernel/instant";
import { dayAndTimeInFull } from "../../../core/time/day-words";
import { lookAtAccessLog } from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import { AccessFilters } from "../../screens/office/access-filters";
import { AccessList } from "../../screens/office/access-list";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak, worded } from "../../server/base/say.server";
import { readAccessFilter } from "../../server/people/access-filter.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/access-log";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.accessLog");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const page = await lookAtAccessLog(deps, grant, readAccessFilter(new URL(request.url).searchParams));
  if (!page.ok) return { log: null };
  const { now, zone } = readingOf(context.get(memberContext), deps.now());
  const { events, hasMore, keptMs } = page.value;
  const last = events.at(-1);
  return {
    log: {
      events: events.map(({ id, at, who, did, address, device }) => ({
        id,
        who: worded(who),
        did: speak(did),
        from: [address, device].filter((part) => part !== "").join(", "),
        when: speak(dayAndTimeInFull(at, now, zone)),
      })),
      before: hasMore && last !== undefined ? `${last.at}_${last.id}` : null,
      keptDays: Math.round(keptMs / DAY),
    },
  };
}

/** Who came in, failed to, changed rights, or took mail out; for those who lead the tray. */
export default function AccessLog({ loaderData: { log } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const { pathname } = useLocation();
  const [params] = useSearchParams();
  if (log === null)
    return (
      <Page title={say("people.accessLog")}>
        <p className="px-5 py-6 text-soft">{say("people.onlyLeadsOfTheTraySee")}</p>
      </Page>
    );
  const older = new URLSearchParams(params);
  older.set("before", log.before ?? "");
  return (
    <Page
      title={say("people.accessLog")}
      beside={
        <>
          <AccessFilters />
          <span className="ml-auto text-sm text-soft">{say("people.keptForDays", { days: log.keptDays })}</span>
        </>
      }
    >
      <AccessList events={log.events} isFiltered={params.size > 0} />
      {log.before !== null && (
        <p className="px-4 py-3">
          <Link to={`${pathname}?${older}`} className="text-act hover:underline">
            {say("people.olderEntries")}
          </Link>
        </p>
      )}
    </Page>
  );
}
