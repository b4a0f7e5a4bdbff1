import { data, redirect } from "react-router";
import { getTemplates } from "../../../operations/index.server";
import { templatesTexts } from "../../../texts/en/templates";
import { TemplateEditor } from "../../screens/templates/template-editor";
import { depsContext, grantContext } from "../../server/base/context.server";
import { type WrittenTemplate, writtenTemplate } from "../../server/templates/template-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/template";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, templatesTexts, "templates.template");
}

const NEW = "new";
const NEW_TEMPLATE: Omit<WrittenTemplate, "scope"> = {
  id: null,
  name: "",
  folder: "",
  key: "",
  language: "en",
  description: "",
  subject: "",
  html: "",
  habits: {},
  version: 0,
};

export async function loader({ context, params }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  if (grant.role === "reader") throw redirect(`/${params.tray}/templates`);
  const templates = await getTemplates(deps, grant);
  const folders = [...new Set(templates.map(({ folder }) => folder).filter((folder) => folder !== ""))];
  const scope = grant.role === "lead" ? "tray" : "own";
  if (params.template === NEW) return { template: { ...NEW_TEMPLATE, scope } as WrittenTemplate, folders };
  const found = templates.find(({ id }) => id === params.template);
  if (found === undefined) throw data(null, { status: 404 });
  const { uses: _, ...template } = found;
  return { template: writtenTemplate(template), folders };
}

/** A template by itself, to be written or changed. */
export default function TemplatePage({ loaderData: { template, folders } }: Route.ComponentProps) {
  return <TemplateEditor key={template.id ?? NEW} template={template} folders={folders} />;
}
