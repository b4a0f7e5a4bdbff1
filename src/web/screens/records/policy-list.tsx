import { useState } from "react";
import { COUNTS_FROM, ENDS_IN } from "../../../core/retention/policy";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { RetentionView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { ChoiceField } from "../forms/choice-field";
import { SideForm } from "../forms/side-form";
import { useFormAction } from "../forms/use-form-action";
import type { RetentionOutcome } from "./retention-outcome";

const FROM_WORDS = { closing: "records.theClosingOfTheRecord", "last-message": "records.itsNewestMessage" } as const;
const END_WORDS = { review: "records.somebodyLooksAtIt", disposal: "records.itIsAnnouncedAndGoes" } as const;

type PolicyListProps = {
  readonly retention: RetentionView;
  readonly step: ReturnType<typeof useFormAction<RetentionOutcome>>;
};

/** The policies, and which types of records and categories have which. */
export function PolicyList({ retention: { policies, types, categories }, step }: PolicyListProps) {
  const say = useSay(recordsTexts, commonTexts);
  const [edited, setEdited] = useState<string | null>(null);
  const choices = [["", say("common.none")] as const, ...policies.map(({ id, name }) => [id, name] as const)];
  const bearers = [
    ...types.map((one) => ({
      ...one,
      bearer: "record_type",
      about: say("records.recordsOfTheType", { name: one.name }),
    })),
    ...categories.map((one) => ({
      ...one,
      bearer: "category",
      about: say("records.whatHasTheCategory", { name: one.name }),
    })),
  ];
  return (
    <section aria-label={say("records.policies")}>
      <div className="flex items-baseline border-b border-rule pb-1">
        <h2 className="text-sm font-semibold">{say("records.policies")}</h2>
        <Button look="quiet" className="ml-auto h-7" onClick={() => setEdited("")}>
          {say("records.newPolicy")}
        </Button>
      </div>
      {policies.length === 0 && edited === null && (
        <p className="py-3 text-soft">{say("records.everythingIsKeptWithoutLimit")}</p>
      )}
      <ul>
        {policies.map((policy) => (
          <li key={policy.id} className="flex items-center gap-2 border-b border-hair py-1.5">
            <div className="min-w-0 flex-1">
              <p className="font-serif text-[15px]">{policy.name}</p>
              <p className="text-sm text-soft">
                {say("records.then", { words: policy.words, name: say(END_WORDS[policy.endsIn]) })}
              </p>
            </div>
            <Button
              look="quiet"
              className="h-7"
              aria-label={say("common.changeOf", { name: policy.name })}
              onClick={() => setEdited(policy.id)}
            >
              {say("common.change")}
            </Button>
            {policy.bearers === 0 && (
              <Button
                look="quiet"
                className="h-7"
                aria-label={say("common.removeOf", { name: policy.name })}
                onClick={() => step.post({ do: "remove", id: policy.id })}
              >
                {say("common.remove")}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {edited !== null && (
        <PolicyForm
          key={edited}
          policy={policies.find(({ id }) => id === edited) ?? null}
          onClose={() => setEdited(null)}
        />
      )}
      {step.refused?.problem != null && (
        <p role="alert" className="mt-2 text-late">
          {step.refused.problem}
        </p>
      )}
      {policies.length > 0 && (
        <ul aria-label={say("records.whatTheyApplyTo")} className="mt-4 max-h-72 overflow-y-auto text-sm">
          {bearers.map(({ id, name, bearer, about, policyId }) => (
            <li key={id} className="flex items-center gap-3 border-b border-hair py-1">
              <span className="min-w-0 flex-1 truncate">
                {name}{" "}
                <span className="text-soft">
                  {say(bearer === "category" ? "records.categoryInside" : "records.typeInside")}
                </span>
              </span>
              <Select
                label={say("records.policyFor", { about })}
                look="quiet"
                value={policyId ?? ""}
                choices={choices}
                onChoose={(policy) => step.post({ do: "bear", bearer, id, policy })}
              />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

type PolicyFormProps = {
  readonly policy: RetentionView["policies"][number] | null;
  readonly onClose: () => void;
};

function PolicyForm({ policy, onClose }: PolicyFormProps) {
  const say = useSay(recordsTexts, commonTexts);
  const step = useFormAction<RetentionOutcome>("retention", onClose);
  const problems = step.refused?.problems ?? {};
  return (
    <div className="mt-3">
      <SideForm
        name={policy === null ? say("records.newPolicy") : say("common.changeOf", { name: policy.name })}
        step={step}
        submits={say("records.savePolicy")}
        onClose={onClose}
      >
        <input type="hidden" name="do" value="policy" />
        <input type="hidden" name="id" value={policy?.id ?? ""} />
        <Field
          label={say("common.name")}
          name="name"
          defaultValue={policy?.name ?? ""}
          placeholder={say("records.projectFiles")}
          problem={problems.name}
          autoFocus
          autoComplete="off"
        />
        <Field
          label={say("records.howLong")}
          name="period"
          defaultValue={policy?.period ?? ""}
          placeholder={say("records.p10yForTenYearsP6m")}
          problem={problems.period}
          autoComplete="off"
        />
        <ChoiceField
          label={say("records.countedFrom")}
          name="countsFrom"
          value={policy?.countsFrom ?? "closing"}
          choices={COUNTS_FROM.map((one) => [one, say(FROM_WORDS[one])] as const)}
        />
        <ChoiceField
          label={say("records.atItsEnd")}
          name="endsIn"
          value={policy?.endsIn ?? "review"}
          choices={ENDS_IN.map((one) => [one, say(END_WORDS[one])] as const)}
        />
      </SideForm>
    </div>
  );
}
