import { useState } from "react";
import { COUNTS_FROM, ENDS_IN } from "../../../core/retention/policy";
import type { RetentionView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { ChoiceField } from "../frame/choice-field";
import { SideForm } from "../frame/side-form";
import { useStep } from "../frame/use-step";
import type { RetentionOutcome } from "./retention-outcome";

const FROM_WORDS = { closing: "the closing of the record", "last-message": "its newest message" } as const;
const END_WORDS = { review: "somebody looks at it", disposal: "it is announced, and goes a week later" } as const;

type PolicyListProps = {
  readonly retention: RetentionView;
  readonly step: ReturnType<typeof useStep<RetentionOutcome>>;
};

/** The policies, and which types of records and categories have which. */
export function PolicyList({ retention: { policies, types, categories }, step }: PolicyListProps) {
  const [edited, setEdited] = useState<string | null>(null);
  const choices = [["", "none"] as const, ...policies.map(({ id, name }) => [id, name] as const)];
  const bearers = [
    ...types.map((one) => ({ ...one, bearer: "record_type", about: `records of the type ${one.name}` })),
    ...categories.map((one) => ({ ...one, bearer: "category", about: `what has the category ${one.name}` })),
  ];
  return (
    <section aria-label="Policies">
      <div className="flex items-baseline border-b border-rule pb-1">
        <h2 className="text-sm font-semibold">Policies</h2>
        <Button look="quiet" className="ml-auto h-7" onClick={() => setEdited("")}>
          New policy
        </Button>
      </div>
      {policies.length === 0 && edited === null && (
        <p className="py-3 text-soft">
          Everything is kept without limit. A policy says for how long, and what it applies to.
        </p>
      )}
      <ul>
        {policies.map((policy) => (
          <li key={policy.id} className="flex items-center gap-2 border-b border-hair py-1.5">
            <div className="min-w-0 flex-1">
              <p className="font-serif text-[15px]">{policy.name}</p>
              <p className="text-sm text-soft">
                {policy.words}; then {END_WORDS[policy.endsIn]}
              </p>
            </div>
            <Button
              look="quiet"
              className="h-7"
              aria-label={`Change ${policy.name}`}
              onClick={() => setEdited(policy.id)}
            >
              Change
            </Button>
            {policy.bearers === 0 && (
              <Button
                look="quiet"
                className="h-7"
                aria-label={`Remove ${policy.name}`}
                onClick={() => step.post({ do: "remove", id: policy.id })}
              >
                Remove
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
        <ul aria-label="What they apply to" className="mt-4 max-h-72 overflow-y-auto text-sm">
          {bearers.map(({ id, name, bearer, about, policyId }) => (
            <li key={id} className="flex items-center gap-3 border-b border-hair py-1">
              <span className="min-w-0 flex-1 truncate">
                {name} <span className="text-soft">{bearer === "category" ? "category" : "type"}</span>
              </span>
              <Select
                label={`Policy for ${about}`}
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
  const step = useStep<RetentionOutcome>("retention", onClose);
  const problems = step.refused?.problems ?? {};
  return (
    <div className="mt-3">
      <SideForm
        name={policy === null ? "New policy" : `Change ${policy.name}`}
        step={step}
        submits="Save policy"
        onClose={onClose}
      >
        <input type="hidden" name="do" value="policy" />
        <input type="hidden" name="id" value={policy?.id ?? ""} />
        <Field
          label="Name"
          name="name"
          defaultValue={policy?.name ?? ""}
          placeholder="Project files"
          problem={problems.name}
          autoFocus
          autoComplete="off"
        />
        <Field
          label="How long"
          name="period"
          defaultValue={policy?.period ?? ""}
          placeholder="P10Y for ten years, P6M for six months"
          problem={problems.period}
          autoComplete="off"
        />
        <ChoiceField
          label="Counted from"
          name="countsFrom"
          value={policy?.countsFrom ?? "closing"}
          choices={COUNTS_FROM.map((one) => [one, FROM_WORDS[one]] as const)}
        />
        <ChoiceField
          label="At its end"
          name="endsIn"
          value={policy?.endsIn ?? "review"}
          choices={ENDS_IN.map((one) => [one, END_WORDS[one]] as const)}
        />
      </SideForm>
    </div>
  );
}
