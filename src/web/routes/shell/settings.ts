import Joi from "joi";
import { data } from "react-router";
import { LISTED } from "../../../core/categories/category";
import { HOW_SURE } from "../../../core/filing/how-sure";
import { isScope } from "../../../core/lists/scope";
import { readView } from "../../../core/lists/sheet-view";
import { AFTER_DECISION, choosePreference, chooseView, type PreferenceName } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import type { Route } from "./+types/settings";

const VALUES: { readonly [Name in PreferenceName]: Joi.Schema } = {
  keys: Joi.object().pattern(Joi.string().max(40), Joi.string().max(20)).max(100),
  "after-decision": Joi.string().valid(...AFTER_DECISION),
  "categories-listed": Joi.object()
    .pattern(ID, Joi.string().valid(...LISTED))
    .max(1_000),
  proposals: Joi.string().valid(...HOW_SURE),
  "drop-on-record": Joi.string().valid("file", "file-and-settle"),
};

/** Remembers a choice of the member: `name` and `value` as JSON, null for what is usual; a view is `view/` and its list. */
export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await readForm(request);
  const name = String(form.get("name"));
  const value = parsed(String(form.get("value")));
  if (value === undefined) return data({ ok: false }, { status: 400 });
  const scope = name.startsWith("view/") ? name.slice("view/".length) : null;
  if (scope !== null && isScope(scope)) {
    await chooseView(deps, grant, scope, value === null ? null : readView(value));
    return { ok: true };
  }
  if (!Object.hasOwn(VALUES, name)) return data({ ok: false }, { status: 400 });
  const preference = name as PreferenceName;
  if (value !== null && VALUES[preference].validate(value).error !== undefined)
    return data({ ok: false }, { status: 400 });
  await choosePreference(deps, grant, preference, value);
  return { ok: true };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
