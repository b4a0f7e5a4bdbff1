import { lazy, Suspense, useId, useState } from "react";
import { useNavigate } from "react-router";
import { TEMPLATE_LANGUAGES } from "../../../core/templates/greeting";
import type { TemplateScope } from "../../../core/templates/template";
import { commonTexts } from "../../../texts/en/common";
import { templatesTexts } from "../../../texts/en/templates";
import { writingTexts } from "../../../texts/en/writing";
import type { WrittenTemplate } from "../../server/templates/template-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import type { KeptListOutcome } from "../forms/use-kept-list";
import { useTray } from "../frame/tray-data";
import { BlankMenu } from "./blank-menu";
import { HabitFields } from "./habit-fields";
import { SCOPES } from "./template-list";

const Editor = lazy(() => import("../editor/editor"));

type TemplateEditorProps = { readonly template: WrittenTemplate; readonly folders: readonly string[] };

/** A template being written or changed. */
export function TemplateEditor({ template, folders }: TemplateEditorProps) {
  const say = useSay(templatesTexts, commonTexts, writingTexts);
  const { tray, mayLead } = useTray();
  const navigate = useNavigate();
  const listId = useId();
  const [draft, setDraft] = useState(template);
  const change = (changed: Partial<WrittenTemplate>) => setDraft((before) => ({ ...before, ...changed }));
  const close = () => void navigate(`/${tray.slug}/templates`);
  const { post, refused, problems, isBusy } = useFormAction<KeptListOutcome>("templates", close);
  const field = (name: "name" | "folder" | "key" | "description" | "subject") => ({
    value: draft[name],
    onChange: (event: { target: { value: string } }) => change({ [name]: event.target.value }),
    problem: problems[name],
    autoComplete: "off",
  });
  const scopes: readonly TemplateScope[] = mayLead ? ["tray", "own", "everywhere"] : ["own"];
  return (
    <Page
      title={
        template.id === null ? say("templates.newTemplate") : say("templates.templateCalled", { name: template.name })
      }
      beside={
        <span className="ms-auto flex gap-2">
          <Button look="quiet" onClick={close}>
            {say("common.cancel")}
          </Button>
          <Button look="filled" disabled={isBusy} onClick={() => post({ do: "keep", template: JSON.stringify(draft) })}>
            {say("templates.save")}
          </Button>
        </span>
      }
    >
      <div className="grid min-h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(300px,360px)]">
        <div className="space-y-3 px-5 py-4">
          {refused?.problem != null && (
            <p role="alert" className="text-late">
              {refused.problem}
            </p>
          )}
          <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_120px]">
            <Field label={say("common.name")} {...field("name")} autoFocus={template.id === null} />
            <Field label={say("templates.keyOptional")} {...field("key")} />
          </div>
          <Field label={say("templates.subjectOptional")} {...field("subject")} />
          <Suspense fallback={<p className="h-[180px] text-soft">{say("writing.loadingTheEditor")}</p>}>
            <Editor
              html={draft.html}
              problem={problems.html}
              onChange={(html) => change({ html })}
              isTemplate
              aside={(insert) => <BlankMenu onInsert={insert} />}
            />
          </Suspense>
          <p className="max-w-prose text-sm text-soft">{say("templates.howBlanksWork")}</p>
        </div>
        <div className="space-y-4 border-hair px-5 py-4 lg:border-s">
          <Chosen label={say("templates.whose")}>
            <Select
              label={say("templates.whose")}
              value={draft.scope}
              choices={scopes.map((scope) => [scope, say(SCOPES[scope])] as const)}
              onChoose={(scope) => change({ scope: scope as TemplateScope })}
            />
          </Chosen>
          <Field
            label={say("templates.folderOptional")}
            placeholder={say("templates.folderExample")}
            list={listId}
            {...field("folder")}
          />
          <datalist id={listId}>
            {folders.map((folder) => (
              <option key={folder} value={folder} />
            ))}
          </datalist>
          <Field label={say("templates.descriptionOptional")} {...field("description")} />
          <Chosen label={say("templates.language")}>
            <Select
              label={say("templates.language")}
              value={draft.language}
              choices={TEMPLATE_LANGUAGES.map((language) => [language, nameOf(language)] as const)}
              onChoose={(language) => change({ language })}
            />
          </Chosen>
          <HabitFields habits={draft.habits} problems={problems} onChange={(habits) => change({ habits })} />
        </div>
      </div>
    </Page>
  );
}

function Chosen({ label, children }: { readonly label: string; readonly children: React.ReactNode }) {
  return (
    <div>
      <p className="mb-1 text-sm font-semibold">{label}</p>
      {children}
    </div>
  );
}

// Each language by its own name for itself.
function nameOf(language: string): string {
  return new Intl.DisplayNames(language, { type: "language" }).of(language) ?? language;
}
