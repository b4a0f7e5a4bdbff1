import Joi from "joi";
import { useState } from "react";
import { data, Link } from "react-router";
import { type RoundId, readId } from "../../../core/kernel/ids";
import { dayAndTime } from "../../../core/time/day-words";
import { writtenTimeOfDay } from "../../../core/worktime/working-hours";
import {
  type Deps,
  dropRound,
  editRound,
  getRounds,
  letRoundIn,
  type TrayGrant,
} from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { roundsTexts } from "../../../texts/en/rounds";
import type { FormProblems } from "../../screens/forms/use-form-action";
import type { KeptListOutcome } from "../../screens/forms/use-kept-list";
import { useTray } from "../../screens/frame/tray-data";
import { RoundForm } from "../../screens/rounds/round-form";
import { RoundList } from "../../screens/rounds/round-list";
import { LeadsOnly } from "../../screens/shell/leads-only";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { problemOf, saidByField, speak } from "../../server/base/say.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/rounds";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, roundsTexts, "rounds.rounds");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const { timeZone } = context.get(memberContext);
  const rounds = await getRounds(deps, grant);
  return {
    zone: grant.tray.timeZone,
    rounds: rounds.map(({ next, times, ...round }) => ({
      ...round,
      times: times.map(writtenTimeOfDay),
      next: next === null ? null : speak(dayAndTime(next, deps.now(), timeZone)),
    })),
  };
}

const STEP = Joi.object({
  do: Joi.valid("keep", "drop", "bring-back", "let-in").required(),
  id: ID.allow("").required(),
  name: Joi.string().allow("").max(500).default(""),
  times: Joi.string().allow("").max(500).default(""),
});

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const { value: step, error } = STEP.validate(Object.fromEntries(await readForm(request)));
  if (error !== undefined) return refused({}, problemOf(error), 400);
  const id = readId<RoundId>(step.id);
  if (step.do === "keep") {
    const kept = await editRound(deps, grant, id.ok ? id.value : null, step);
    if (kept.ok) return data<KeptListOutcome>({ ok: true, said: speak("rounds.saved"), droppedId: null });
    if (kept.error.kind !== "round-problems") return refused({}, refusalSaid(kept.error), 409);
    return refused(saidByField(kept.error.problems), null, 400);
  }
  if (!id.ok) return refused({}, speak("rounds.chooseARound"), 400);
  const done = await carry(deps, grant, step.do, id.value);
  if (!done.ok) return refused({}, refusalSaid(done.error), 409);
  const said = step.do === "bring-back" ? speak("rounds.broughtBack") : "";
  return data<KeptListOutcome>({ ok: true, said, droppedId: step.do === "drop" ? step.id : null });
}

function carry(deps: Deps, grant: TrayGrant, step: "drop" | "bring-back" | "let-in", id: RoundId) {
  return step === "let-in" ? letRoundIn(deps, grant, id) : dropRound(deps, grant, id, step === "drop");
}

function refused(problems: FormProblems, problem: string | null, status: number) {
  return data<KeptListOutcome>({ ok: false, problems, problem }, { status });
}

/** The hours at which mail is let in that rules hold back. */
export default function Rounds({ loaderData: { rounds, zone } }: Route.ComponentProps) {
  const say = useSay(roundsTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const [edited, setEdited] = useState<string | null>(null);
  return (
    <Page
      title={say("rounds.rounds")}
      beside={
        <>
          <Link to={`/${tray.slug}/held`} className="text-act hover:underline">
            {say("rounds.whatIsHeld")}
          </Link>
          {mayLead ? (
            <Button className="ms-auto" onClick={() => setEdited("")}>
              {say("rounds.newRound")}
            </Button>
          ) : (
            <LeadsOnly />
          )}
        </>
      }
    >
      <div className="max-w-[960px] space-y-4 px-5 py-4">
        <p className="max-w-prose text-soft">{say("rounds.whatARoundIs", { zone })}</p>
        {edited !== null && (
          <RoundForm
            key={edited}
            round={rounds.find(({ id }) => id === edited) ?? null}
            onClose={() => setEdited(null)}
          />
        )}
        <RoundList rounds={rounds} onEdit={setEdited} />
      </div>
    </Page>
  );
}
