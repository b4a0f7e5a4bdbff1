import { useState } from "react";
import { data, Link } from "react-router";
import { codeOf, readCodePattern } from "../../../core/records/code-pattern";
import { calendarDay } from "../../../core/time/calendar-day";
import { editType, getTypes } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { RecordTypeForm } from "../../screens/records/record-type-form";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { saidByField } from "../../server/base/say.server";
import { readTypeDraft } from "../../server/records/record-form.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/record-types";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, recordsTexts, "records.typesOfRecords");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const types = await getTypes(deps);
  const today = calendarDay(deps.now(), grant.tray.timeZone);
  return {
    today,
    types: types.map((type) => {
      const pattern = readCodePattern(type.codePattern);
      return { ...type, example: pattern.ok ? codeOf(pattern.value, today, 1) : "" };
    }),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const draft = readTypeDraft(await readForm(request));
  if (!draft.ok) return data<FormOutcome>({ ok: false, problems: {}, problem: draft.error }, { status: 400 });
  const kept = await editType(context.get(depsContext), context.get(grantContext), draft.value);
  if (kept.ok) return data<FormOutcome>({ ok: true, said: `${draft.value.name.trim()} saved` });
  const { error } = kept;
  const problems = error.kind === "problems" ? saidByField(error.problems) : {};
  const problem = error.kind === "problems" ? null : refusalSaid(error);
  return data<FormOutcome>({ ok: false, problems, problem }, { status: 409 });
}

/** What kinds of records there are, how each is numbered, and what is asked when something is filed on one. */
export default function RecordTypes({ loaderData: { types, today } }: Route.ComponentProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const [edited, setEdited] = useState<string | null>(null);
  return (
    <Page
      title={say("records.typesOfRecords")}
      beside={
        <>
          <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
            {say("common.records")}
          </Link>
          {mayLead ? (
            <Button className="ml-auto" onClick={() => setEdited("")}>
              {say("records.newType")}
            </Button>
          ) : (
            <span className="text-soft">{say("records.onlyLeadsOfATray")}</span>
          )}
        </>
      }
    >
      <div className="grid gap-x-8 gap-y-6 px-5 py-4 min-[1500px]:grid-cols-[minmax(0,1fr)_560px]">
        <ul className="self-start border-t border-hair">
          {types.map((type) => (
            <li key={type.id} className="flex items-center gap-4 border-b border-hair py-2">
              <div className="min-w-0 flex-1">
                <p className="font-serif text-[15px]">{type.name}</p>
                <p className="truncate text-sm text-soft">
                  {say("records.asIn", { codePattern: type.codePattern, example: type.example })}
                  {type.fields.length > 0 &&
                    say("records.asksFor", { fields: type.fields.map(({ label }) => label).join(", ") })}
                </p>
              </div>
              {mayLead && (
                <Button
                  look="quiet"
                  aria-label={say("common.changeOf", { name: type.name })}
                  onClick={() => setEdited(type.id)}
                >
                  {say("common.change")}
                </Button>
              )}
            </li>
          ))}
        </ul>
        {edited !== null && (
          <div className="max-w-2xl max-[1500px]:order-first">
            <RecordTypeForm
              key={edited}
              type={types.find(({ id }) => id === edited) ?? null}
              today={today}
              onClose={() => setEdited(null)}
            />
          </div>
        )}
      </div>
    </Page>
  );
}
