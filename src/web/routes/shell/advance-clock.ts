import Joi from "joi";
import { data } from "react-router";
import { advanceDemoClock, SPANS, type Span } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/advance-clock";

const SCHEMA = Joi.object<{ span: Span }>({
  span: Joi.string()
    .valid(...SPANS)
    .required(),
});

/** Lets time pass in the demo. */
export async function action({ request, context }: Route.ActionArgs) {
  const posted = SCHEMA.validate(Object.fromEntries(await readForm(request)));
  if (posted.error !== undefined) {
    return data({ ok: false as const, problems: {}, problem: speak("shell.chooseHowFarToAdvance") }, { status: 400 });
  }
  const passed = await advanceDemoClock(context.get(depsContext), context.get(grantContext), posted.value.span);
  if (passed.ok) return { ok: true as const, said: speak("shell.timeAdvanced") };
  return data({ ok: false as const, problems: {}, problem: refusalSaid(passed.error) }, { status: 409 });
}
