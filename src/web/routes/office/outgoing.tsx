import { Send } from "lucide-react";
import { Link, useFetcher, useNavigate } from "react-router";
import { dayAndTime } from "../../../core/time/day-words";
import { getOutgoing, namesIn } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { PlainKey } from "../../../texts/say";
import { useTray } from "../../screens/frame/tray-data";
import { useRecall } from "../../screens/writing/use-recall";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { speak, worded } from "../../server/base/say.server";
import { Button } from "../../ui/button";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/outgoing";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.outgoingMail");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const [rows, { members }] = await Promise.all([getOutgoing(deps, grant), namesIn(deps, grant)]);
  const now = deps.now();
  return {
    rows: rows.map(({ id, conversationId, subject, to, state, reason, at, leavesAt, authorId }) => ({
      id,
      conversationId,
      subject,
      state,
      reason: reason === null ? null : worded(reason),
      to: to.join(", "),
      held: leavesAt !== null && leavesAt > now,
      when: speak(dayAndTime(at, now, member.timeZone)),
      who: members.find((one) => one.id === authorId)?.name ?? speak("office.theTrayInside"),
    })),
  };
}

type Row = Route.ComponentProps["loaderData"]["rows"][number];

const STATES: Readonly<Record<Row["state"], PlainKey<typeof officeTexts>>> = {
  waiting: "office.waitingToGo",
  going: "office.goingOut",
  failed: "office.notSent",
  sent: "office.sent",
  withdrawn: "office.takenBack",
};

export default function Outgoing({ loaderData: { rows } }: Route.ComponentProps) {
  const say = useSay(officeTexts);
  const stuck = rows.filter(({ state }) => state !== "sent");
  const sent = rows.filter(({ state }) => state === "sent");
  return (
    <main className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5">
      <h1 className="px-5 pt-3 font-serif text-xl">{say("office.outgoingMail")}</h1>
      <p className="border-b border-rule px-5 pb-3 text-sm text-soft">
        {stuck.length === 0 ? say("office.nothingWaitsEverythingThatWas") : say("office.whatHasNotGoneCan")}
      </p>
      {rows.length === 0 && (
        <p className="flex flex-col items-center gap-3 py-24 text-soft">
          <Send size={28} aria-hidden className="text-faint" />
          {say("office.nothingHasBeenSentFrom")}
        </p>
      )}
      {stuck.length > 0 && <Rows title={say("office.onTheWay")} rows={stuck} />}
      {sent.length > 0 && <Rows title={say("office.sentLately")} rows={sent} />}
    </main>
  );
}

function Rows({ title, rows }: { title: string; rows: readonly Row[] }) {
  return (
    <section aria-label={title}>
      <h2 className="border-b border-hair bg-ground px-5 py-1 text-sm font-semibold">{title}</h2>
      <ul>
        {rows.map((row) => (
          <OutgoingItem key={row.id} row={row} />
        ))}
      </ul>
    </section>
  );
}

function OutgoingItem({ row }: { row: Row }) {
  const say = useSay(officeTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  const navigate = useNavigate();
  const again = useFetcher();
  const takeBack = useRecall((conversationId) => navigate(`/${tray.slug}/our-move/${conversationId}`));
  return (
    <li className="grid grid-cols-[130px_minmax(0,1fr)_auto] items-center gap-x-4 border-b border-hair px-5 py-2">
      <span className={row.state === "failed" ? "font-semibold text-late" : "text-soft"}>
        {row.held ? say("office.heldAMoment") : say(STATES[row.state])}
      </span>
      <span className="min-w-0">
        <Link
          to={`/${tray.slug}/our-move/${row.conversationId}`}
          className="block truncate font-serif text-[15px] hover:underline"
        >
          {row.subject || say("common.noSubject")}
        </Link>
        <span className="block truncate text-sm text-soft">
          {say("office.whoWhenTo", { who: row.who, when: row.when, to: row.to })}
        </span>
        {row.reason !== null && <span className="block text-sm text-late">{row.reason}</span>}
      </span>
      {mayDecide && row.state !== "sent" && row.state !== "going" && (
        <span className="flex gap-1.5">
          {row.state === "failed" && (
            <again.Form method="post" action={`/${tray.slug}/messages/${row.id}/send-again`}>
              <Button type="submit" disabled={again.state !== "idle"}>
                {say("office.sendAgain")}
              </Button>
            </again.Form>
          )}
          <Button onClick={() => takeBack(row.id)}>
            {row.state === "failed" ? say("office.discardKeepAsDraft") : say("common.takeBack")}
          </Button>
        </span>
      )}
    </li>
  );
}
