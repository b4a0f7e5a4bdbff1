import { data, Form, Link, redirect } from "react-router";
import { readId, type TimeOffId } from "../../../core/kernel/ids";
import { isStandingKind, STANDING_NAMES } from "../../../core/standing/standing";
import { readSummary, summaryOf } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { OwnerBadge } from "../../screens/frame/owner-badge";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { absenceView } from "../../server/people/absence-view.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/absence-summary";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.whileIWasAway");
}

function idOf(text: string): TimeOffId {
  const id = readId<TimeOffId>(text);
  if (!id.ok) throw data(speak("server.noSuchTimeOff"), { status: 404 });
  return id.value;
}

export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const summary = await summaryOf(deps, grant, idOf(params.timeOff));
  if (summary === null) throw data(speak("server.noSuchTimeOff"), { status: 404 });
  return absenceView(summary, readingOf(member, deps.now()));
}

export async function action({ params, context }: Route.ActionArgs) {
  const grant = context.get(grantContext);
  await readSummary(context.get(depsContext), grant, idOf(params.timeOff));
  return redirect(`/${grant.tray.slug}/open?owner=mine`);
}

/** What happened in a member's conversations while she was away, and where each is now. */
export default function AbsencePage({ loaderData: { stretch, words, happened } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  return (
    <Page
      title={say("people.whileIWasAway")}
      beside={
        <>
          <span className="text-soft">{stretch}</span>
          {/* Leads on, which a fetcher would not where others change something meanwhile. */}
          <Form method="post" className="ml-auto">
            <Button look="filled" type="submit">
              {say("people.iHaveReadIt")}
            </Button>
          </Form>
        </>
      }
    >
      <p className="border-b border-hair px-4 py-3">{words}</p>
      <ul>
        {happened.map((one) => (
          <HappenedLine key={one.id} happened={one} />
        ))}
      </ul>
    </Page>
  );
}

function HappenedLine({ happened }: { happened: Route.ComponentProps["loaderData"]["happened"][number] }) {
  const say = useSay(commonTexts);
  const { tray } = useTray();
  const { id, subject, who, standing, ownerId, words, by } = happened;
  return (
    <li className="relative grid grid-cols-[40px_minmax(0,1fr)_auto] items-start gap-x-3 border-b border-hair px-4 py-2 hover:bg-ground/70">
      <OwnerBadge ownerId={ownerId} />
      <span className="min-w-0">
        <Link
          to={`/${tray.slug}/${standing}/${id}`}
          className="block truncate font-serif text-[14.5px] after:absolute after:inset-0 hover:underline"
        >
          {subject || say("common.noSubject")}
        </Link>
        <span className="block truncate text-sm text-soft">
          {who}: {words}
        </span>
      </span>
      <span className="flex items-center gap-2 text-sm text-soft">
        {by.map((one) => (
          <OwnerBadge key={one} ownerId={one} />
        ))}
        {isStandingKind(standing) ? say(STANDING_NAMES[standing]) : ""}
      </span>
    </li>
  );
}
