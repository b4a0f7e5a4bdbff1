import { data, useMatch } from "react-router";
import { isStandingKind, STANDING_NAMES } from "../../core/standing/standing";
import { listStanding } from "../../operations/index.server";
import { StandingScreen } from "../screens/standing-screen";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { readingOf, rowView } from "../server/words.server";
import type { Route } from "./+types/standing";

export function meta({ params }: Route.MetaArgs) {
  return [
    { title: `${isStandingKind(params.standing) ? STANDING_NAMES[params.standing] : "Common Tray"} · Common Tray` },
  ];
}

export async function loader({ params, request, context }: Route.LoaderArgs) {
  if (!isStandingKind(params.standing)) throw data("There is no such standing.", { status: 404 });
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const reading = readingOf(context.get(memberContext), deps.now());
  const { rows, hasMore } = await listStanding(deps, grant, params.standing, pagesOf(request));
  return { standing: params.standing, rows: rows.map((row) => rowView(row, reading)), hasMore, now: reading.now };
}

function pagesOf(request: Request): number {
  const pages = Number(new URL(request.url).searchParams.get("pages") ?? "1");
  return Number.isInteger(pages) && pages > 0 ? pages : 1;
}

export default function Standing({ loaderData, params }: Route.ComponentProps) {
  const open = useMatch("/:tray/:standing/:conversation")?.params.conversation ?? null;
  return <StandingScreen key={`${params.tray}/${params.standing}`} {...loaderData} openId={open} />;
}
