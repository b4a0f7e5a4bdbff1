import { useEffect } from "react";
import { data, useRevalidator, useSearchParams } from "react-router";
import { dayAndTime } from "../../../core/time/day-words";
import { cancelImport, getImports } from "../../../operations/index.server";
import { officeTexts } from "../../../texts/en/office";
import { ImportForm } from "../../screens/office/import-form";
import { ImportRuns } from "../../screens/office/import-runs";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/import";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.importMail");
}

const LOOK_EVERY_MS = 1_000;
const GOING = ["receiving", "waiting", "running"];

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const runs = await getImports(deps, context.get(grantContext));
  return {
    runs: runs.map(({ createdAt, endedAt: _, ...run }) => ({
      ...run,
      when: speak(dayAndTime(createdAt, deps.now(), member.timeZone)),
      goesOn: GOING.includes(run.state),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const id = String((await readForm(request)).get("cancel"));
  const done = await cancelImport(context.get(depsContext), context.get(grantContext), id);
  return done.ok ? { problem: null } : data({ problem: refusalSaid(done.error) }, { status: 409 });
}

export default function Import({ loaderData: { runs } }: Route.ComponentProps) {
  const say = useSay(officeTexts);
  const { revalidate } = useRevalidator();
  const [params] = useSearchParams();
  const goesOn = runs.some((run) => run.goesOn);
  useEffect(() => {
    if (!goesOn) return;
    const looking = setInterval(() => void revalidate(), LOOK_EVERY_MS);
    return () => clearInterval(looking);
  }, [goesOn, revalidate]);
  return (
    <main className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5">
      <h1 className="px-5 pt-3 font-serif text-xl">{say("office.importMail")}</h1>
      <p className="border-b border-rule px-5 pb-3 text-sm text-soft">{say("office.takesMboxAndEmlFiles")}</p>
      <ImportForm start={params.get("as") ?? ""} onReceived={() => void revalidate()} />
      <ImportRuns runs={runs} />
    </main>
  );
}
