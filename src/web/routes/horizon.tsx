import { dayAndTime } from "../../core/standing/day-words";
import { lookAtWaiting, remindersToGo } from "../../operations/index.server";
import { HorizonScreen } from "../screens/horizon-screen";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { waitingViews } from "../server/waiting-view.server";
import { readingOf } from "../server/words.server";
import type { Route } from "./+types/horizon";

export function meta() {
  return [{ title: "Waiting for reply, as a horizon · Common Tray" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const { rows } = await lookAtWaiting(deps, grant);
  const reading = readingOf(context.get(memberContext), deps.now(), grant.covering);
  const toGo = await remindersToGo(
    deps,
    grant,
    rows.map(({ row }) => row.id),
  );
  return {
    rows: waitingViews(rows, reading),
    now: reading.now,
    reminders: toGo.map(({ conversationId, sendAt }) => ({
      conversationId,
      when: dayAndTime(sendAt, reading.now, reading.zone),
    })),
  };
}

export default function Horizon({ loaderData }: Route.ComponentProps) {
  return <HorizonScreen {...loaderData} />;
}
