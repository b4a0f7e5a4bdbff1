import Joi from "joi";
import { data } from "react-router";
import { type PinId, trustedId } from "../../../core/kernel/ids";
import { isScope } from "../../../core/lists/scope";
import { arrangePlaces, editView, namePlace, pinPlace, unpinPlace } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { ID, ID_LIST } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { problemOf, speak } from "../../server/base/say.server";
import type { Route } from "./+types/shelf";

const id = ID.required();

const FORMS: Readonly<Record<string, Joi.ObjectSchema>> = {
  pin: Joi.object({
    kind: Joi.string().valid("record", "category", "member", "view").required(),
    target: id,
    forAll: Joi.boolean().default(false),
  }),
  name: Joi.object({
    id,
    name: Joi.string().trim().allow("").max(60).required().messages({ "string.max": "shell.aNameHasAtMost" }),
    folder: Joi.string().trim().allow("").max(30).default(""),
  }),
  unpin: Joi.object({ id }),
  arrange: Joi.object({ ids: ID_LIST.required() }),
  "save-view": Joi.object({
    name: Joi.string().trim().min(1).max(60).required().messages({ "string.empty": "shell.giveItANameFirst" }),
    scope: Joi.string().required(),
    query: Joi.string().allow("").max(10_000).required(),
  }),
};

/** Puts places on the shelf, names them, orders them, takes them off; saves a view. `problem` says what was wrong. */
export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = Object.fromEntries(await readForm(request));
  const step = String(form.do);
  const schema = Object.hasOwn(FORMS, step) ? FORMS[step] : undefined;
  if (schema === undefined) throw data(speak("shell.thatIsNothingToDo"), { status: 400 });
  const { value, error } = schema.validate(form, { stripUnknown: true });
  if (error !== undefined) return data({ problem: problemOf(error) }, { status: 400 });
  const outcome = await (async () => {
    switch (form.do) {
      case "pin":
        return pinPlace(deps, grant, { kind: value.kind, target: value.target, isForAll: value.forAll });
      case "name":
        return namePlace(deps, grant, trustedId<PinId>(value.id), { name: value.name, folder: value.folder });
      case "unpin":
        return unpinPlace(deps, grant, trustedId<PinId>(value.id));
      case "arrange":
        await arrangePlaces(
          deps,
          grant,
          value.ids.map((one: string) => trustedId<PinId>(one)),
        );
        return null;
      default:
        if (!isScope(value.scope)) throw data(speak("shell.thereIsNoSuchList"), { status: 400 });
        return editView(deps, grant, value);
    }
  })();
  if (outcome !== null && !outcome.ok) return data({ problem: refusalSaid(outcome.error) }, { status: 409 });
  return { problem: null };
}
