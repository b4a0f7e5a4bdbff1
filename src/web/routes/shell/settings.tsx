import Joi from "joi";
import { data, Link } from "react-router";
import { LISTED } from "../../../core/categories/category";
import { HOW_SURE } from "../../../core/filing/how-sure";
import { isScope } from "../../../core/lists/scope";
import { readView } from "../../../core/lists/sheet-view";
import { AFTER_DECISION, choosePreference, chooseView, type PreferenceName } from "../../../operations/index.server";
import { shellTexts } from "../../../texts/en/shell";
import { useTray } from "../../screens/frame/tray-data";
import { FindSetting, NoSetting, useSettings } from "../../screens/shell/settings-index";
import { depsContext, grantContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/settings";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, shellTexts, "shell.settings");
}

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

/** All settings, each with what it is for. */
export default function Settings() {
  const say = useSay(shellTexts);
  const settings = useSettings();
  const { tray } = useTray();
  return (
    <Page title={say("shell.allSettings")}>
      <div className="max-w-3xl px-5 pt-4 pb-8">
        <div className="pb-2 md:hidden">
          <FindSetting {...settings} />
        </div>
        {settings.groups.length === 0 && <NoSetting />}
        {settings.groups.map(([group, pages]) => (
          <section key={group} aria-label={group} className="pb-5">
            <h2 className="border-b border-rule pb-1 text-sm font-semibold text-soft">{group}</h2>
            <ul>
              {pages.map(({ path, name, about, found }) => (
                <li key={path} className="border-b border-hair">
                  <Link
                    to={`/${tray.slug}/${path}`}
                    className="grid gap-x-6 py-2 hover:bg-ground/70 sm:grid-cols-[220px_minmax(0,1fr)]"
                  >
                    <span className="font-semibold">{name}</span>
                    <span className="text-soft">
                      {about}
                      {found.length > 0 && <span className="block text-sm">{found.join(", ")}</span>}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </Page>
  );
}
