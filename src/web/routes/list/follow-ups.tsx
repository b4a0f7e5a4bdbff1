import { Check } from "lucide-react";
import { NavLink, Outlet, useLocation, useMatch } from "react-router";
import { FOLLOW_UP_GROUP_NAMES } from "../../../core/lists/follow-up-groups";
import { STANDING_NAMES } from "../../../core/standing/standing";
import { dayAndTime } from "../../../core/time/day-words";
import { getFollowUps } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { useStandaloneActions } from "../../screens/conversation/standalone-actions";
import { useDecisions } from "../../screens/deciding/decisions";
import { FollowUpFilter } from "../../screens/filter/follow-up-filter";
import { useTray } from "../../screens/frame/tray-data";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/follow-ups";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, listTexts, "list.followUps");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const query = new URL(request.url).searchParams;
  const { memberId, now, zone } = readingOf(context.get(memberContext), deps.now());
  const everybody = query.get("whose") === "everybody";
  const isDone = query.get("done") === "yes";
  const groups = await getFollowUps(deps, grant, { whose: everybody ? null : memberId, isDone });
  return {
    everybody,
    isDone,
    groups: groups.map(({ group, followUps }) => ({
      group,
      name: group === "done" ? speak("common.done") : speak(FOLLOW_UP_GROUP_NAMES[group]),
      followUps: followUps.map((one) => ({
        ...one,
        due: one.dueAt === null ? "" : speak(dayAndTime(one.dueAt, now, zone)),
        standingName: speak(STANDING_NAMES[one.standing]),
      })),
    })),
  };
}

type Listed = Route.ComponentProps["loaderData"]["groups"][number]["followUps"][number];

export default function FollowUps({ loaderData, params }: Route.ComponentProps) {
  const say = useSay(listTexts);
  const { everybody, isDone, groups } = loaderData;
  const open = useMatch("/:tray/follow-ups/:conversation")?.params.conversation ?? null;
  const { search } = useLocation();
  const single = useStandaloneActions(open, `/${params.tray}/follow-ups${search}`);
  const beside = open !== null;
  return (
    <div
      className={`mx-2 mt-2.5 grid min-h-0 flex-1 rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 ${beside ? "lg:grid-cols-[360px_minmax(0,1fr)]" : ""}`}
    >
      <main
        aria-label={say("list.followUps")}
        className={`min-h-0 overflow-y-auto ${beside ? "border-r border-rule max-lg:hidden" : ""}`}
      >
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-4 py-2">
          <h1 className="font-serif text-xl">{say("list.followUps")}</h1>
          <FollowUpFilter everybody={everybody} isDone={isDone} />
        </div>
        {groups.length === 0 && (
          <p className="px-4 py-6 text-soft">
            {isDone ? say("list.nothingHasBeenDoneYet") : say("list.noFollowUpsTheKey")}
          </p>
        )}
        {groups.map(({ group, name, followUps }) => (
          <section key={group} aria-label={name}>
            <h2 className="flex gap-2.5 border-b border-rule bg-ground px-4 py-0.5 text-sm">
              <span className={`font-semibold ${group === "past" ? "text-late" : ""}`}>{name}</span>
              <span className="text-soft">{followUps.length}</span>
            </h2>
            <ul>
              {followUps.map((followUp) => (
                <FollowUpRow
                  key={followUp.id}
                  followUp={followUp}
                  slug={params.tray}
                  search={search}
                  isLate={group === "past"}
                  narrow={beside}
                />
              ))}
            </ul>
          </section>
        ))}
      </main>
      {beside && <Outlet context={single.desk} />}
      {single.dialogs}
    </div>
  );
}

type RowProps = { followUp: Listed; slug: string; search: string; isLate: boolean; narrow: boolean };

function FollowUpRow({ followUp, slug, search, isLate, narrow }: RowProps) {
  const say = useSay(listTexts, commonTexts);
  const { members, member, mayDecide } = useTray();
  const { decide } = useDecisions();
  const { id, conversationId, subject, who, text, due, doneAt, standing, standingName, forMember } = followUp;
  const whose =
    forMember === member.id
      ? ""
      : (members.find((one) => one.id === forMember)?.name ?? say("common.aFormerColleague"));
  const done = () =>
    decide(
      { kind: "follow-up-done", followUpId: id },
      { rows: [{ id: conversationId, standing, version: 0 }], everything: null },
      say("list.followUpDone", { text: text || subject }),
    );
  return (
    <li className="relative flex items-start gap-3 border-b border-hair px-4 py-1.5 hover:bg-ground/70">
      {mayDecide && doneAt === null ? (
        <button
          type="button"
          aria-label={say("list.done", { text: text || subject })}
          title={say("common.done")}
          onClick={done}
          className="relative z-10 mt-0.5 grid size-[18px] shrink-0 place-items-center rounded-control border border-rule text-transparent hover:border-act hover:text-act focus-visible:text-act"
        >
          <Check size={13} aria-hidden />
        </button>
      ) : (
        <Check size={15} aria-hidden className="mt-1 shrink-0 text-soft" />
      )}
      <span className="min-w-0 flex-1">
        <NavLink
          to={`/${slug}/follow-ups/${conversationId}${search}`}
          className={({ isActive }) =>
            `block truncate after:absolute after:inset-0 ${isActive ? "font-semibold text-act" : ""}`
          }
        >
          {text || say("list.toLookAtAgain")}
        </NavLink>
        <span className="block truncate text-sm text-soft">
          <span className="font-serif">{subject || say("common.noSubject")}</span> · {who}
          {!narrow && ` · ${standingName}`}
        </span>
      </span>
      <span className={`shrink-0 text-end text-sm ${isLate ? "font-semibold text-late" : "text-soft"}`}>
        {due}
        {whose !== "" && <span className="block font-normal text-soft">{whose}</span>}
      </span>
    </li>
  );
}
