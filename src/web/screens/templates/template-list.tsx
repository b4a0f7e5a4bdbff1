import { useState } from "react";
import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { templatesTexts } from "../../../texts/en/templates";
import type { ListedTemplateView } from "../../server/templates/template-view.server";
import { Button, KeyCap, QUIET_LINK } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useKeptList } from "../forms/use-kept-list";
import { useTray } from "../frame/tray-data";

// Fewer are read faster than searched.
const SEARCHED_FROM = 9;

/** The templates of a member by their folders, with how each was used. */
export function TemplateList({ templates }: { readonly templates: readonly ListedTemplateView[] }) {
  const say = useSay(templatesTexts, commonTexts);
  const [text, setText] = useState("");
  const { problem, removes } = useKeptList("templates", say("templates.removed"));
  if (templates.length === 0) return <p className="max-w-prose">{say("templates.noneYet")}</p>;
  const asked = text.trim().toLowerCase();
  const found = templates.filter(({ name, folder, key, description }) =>
    `${name} ${folder} ${key} ${description}`.toLowerCase().includes(asked),
  );
  const folders = [...new Set(found.map(({ folder }) => folder))];
  return (
    <div className="space-y-4">
      {templates.length >= SEARCHED_FROM && (
        <Field
          label={say("templates.findATemplate")}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="max-w-md"
          autoComplete="off"
        />
      )}
      {problem !== null && (
        <p role="alert" className="text-late">
          {problem}
        </p>
      )}
      {found.length === 0 && <p>{say("templates.noneHasThat")}</p>}
      {folders.map((folder) => (
        <section key={folder} aria-label={folder || say("templates.noFolder")}>
          <h2 className="border-b border-rule pb-0.5 font-serif text-[15px]">
            {folder === "" ? say("templates.noFolder") : folder.split("/").join(" › ")}
          </h2>
          <ul>
            {found
              .filter((template) => template.folder === folder)
              .map((template) => (
                <TemplateRow key={template.id} template={template} onRemove={() => removes(template.id)} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

type TemplateRowProps = { readonly template: ListedTemplateView; readonly onRemove: () => void };

function TemplateRow({ template, onRemove }: TemplateRowProps) {
  const say = useSay(templatesTexts, commonTexts);
  const { tray, members, mayLead, mayDecide } = useTray();
  const { id, name, key, scope, description, blanks, uses } = template;
  const mayChange = scope === "own" ? mayDecide : mayLead;
  const who = members.filter((member) => uses?.memberIds.includes(member.id as never));
  const used =
    uses === null
      ? say("templates.notUsedYet")
      : say("templates.usedSoOften", {
          count: uses.count,
          last: uses.last,
          who: who.map((one) => one.name).join(", "),
        });
  const answered =
    uses?.within == null ? "" : say("templates.answeredWithin", { count: uses.answered, within: uses.within });
  return (
    <li className="flex flex-wrap items-start gap-x-3 border-b border-hair py-2">
      <div className="min-w-0 flex-1 max-sm:basis-3/4">
        <p className="flex flex-wrap items-baseline gap-x-2">
          <span className="font-semibold">{name}</span>
          {key !== "" && <KeyCap>{key}</KeyCap>}
          <span className="text-sm text-soft">{say(SCOPES[scope])}</span>
        </p>
        {description !== "" && <p className="truncate font-serif text-soft">{description}</p>}
        <p className="text-sm text-soft">
          {[say("templates.blanksInIt", { count: blanks }), used, answered].filter(Boolean).join(" · ")}
        </p>
      </div>
      {mayChange && (
        <span className="flex shrink-0 items-center max-sm:w-full max-sm:justify-end">
          <Link
            to={`/${tray.slug}/templates/${id}`}
            aria-label={say("common.changeOf", { name })}
            className={`${QUIET_LINK} px-2`}
          >
            {say("common.change")}
          </Link>
          <Button look="quiet" aria-label={say("common.removeOf", { name })} onClick={onRemove} className="px-2">
            {say("common.remove")}
          </Button>
        </span>
      )}
    </li>
  );
}

export const SCOPES = {
  own: "templates.yourOwn",
  tray: "templates.ofTheTray",
  everywhere: "templates.inAllTrays",
} as const;
