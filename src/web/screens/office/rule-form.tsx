import { useRef, useState } from "react";
import { URGENCIES, URGENCY_NAMES } from "../../../core/kernel/urgency";
import {
  NO_ACTIONS,
  NO_CONDITIONS,
  namesNothing,
  type RuleActions,
  type RuleConditions,
} from "../../../core/rules/rule";
import type { RuleTrial } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { CategoryChoice } from "../categories/category-choice";
import { ChoiceField } from "../forms/choice-field";
import { FormFoot } from "../forms/form-foot";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { ListedRule } from "./rule-list";
import type { RulesOutcome } from "./rules-outcome";

/** A new rule, or one that is changed; it can be tried on the newest messages before it is kept. */
export function RuleForm({ rule, onClose }: { rule: ListedRule | null; onClose: () => void }) {
  const say = useSay(officeTexts, commonTexts);
  const form = useRef<HTMLFormElement>(null);
  const [trial, setTrial] = useState<RuleTrial<string> | null>(null);
  const { Form, action, refused, isBusy, post } = useFormAction<RulesOutcome>("rules", (outcome) => {
    if (outcome.trial === null) onClose();
    else setTrial(outcome.trial);
  });
  const problems = refused?.problems ?? {};
  const { conditions, exceptions, actions } = rule ?? {
    conditions: NO_CONDITIONS,
    exceptions: NO_CONDITIONS,
    actions: NO_ACTIONS,
  };
  const tryIt = () => {
    if (form.current === null) return;
    const posted = new FormData(form.current);
    posted.set("do", "try");
    post(posted);
  };
  return (
    <Form
      ref={form}
      method="post"
      action={action}
      noValidate
      aria-label={rule === null ? say("office.newRule") : say("common.changeOf", { name: rule.name })}
      className="space-y-3 self-start rounded-sheet border border-rule p-3.5"
    >
      <input type="hidden" name="do" value="keep" />
      <input type="hidden" name="id" value={rule?.id ?? ""} />
      <input type="hidden" name="on" value={String(rule?.isOn ?? true)} />
      <Field
        label={say("common.name")}
        name="name"
        defaultValue={rule?.name ?? ""}
        problem={problems.name}
        autoFocus
        autoComplete="off"
      />
      <Conditions title={say("office.whenAMessageComes")} before="" given={conditions} problems={problems} />
      {problems.conditions !== undefined && <p className="text-sm text-late">{problems.conditions}</p>}
      <details open={Object.keys(problems).some((name) => name.startsWith("not-")) || !namesNothing(exceptions)}>
        <summary className="cursor-pointer text-sm font-semibold text-act">{say("office.exceptions")}</summary>
        <Conditions title={say("office.exceptWhenItComes")} before="not-" given={exceptions} problems={problems} />
      </details>
      <Actions actions={actions} code={rule?.code ?? ""} problems={problems} />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          name="last"
          value="true"
          defaultChecked={rule?.isLast ?? false}
          className="size-[14px] accent-act"
        />
        {say("office.stopHereNoLaterRule")}
      </label>
      <FormFoot problem={refused?.problem} onClose={onClose}>
        <Button disabled={isBusy} onClick={tryIt}>
          {say("office.test")}
        </Button>
        <Button look="filled" type="submit" disabled={isBusy}>
          {say("office.saveRule")}
        </Button>
      </FormFoot>
      {trial !== null && <Trial trial={trial} />}
    </Form>
  );
}

type ActionsProps = {
  readonly actions: RuleActions;
  readonly code: string;
  readonly problems: Readonly<Record<string, string>>;
};

function Actions({ actions, code, problems }: ActionsProps) {
  const say = useSay(officeTexts, commonTexts);
  const { members } = useTray();
  const deciding = members.filter(({ reads }) => !reads);
  return (
    <fieldset className="space-y-2">
      <legend className="w-full border-b border-hair pb-0.5 font-serif text-[15px]">{say("common.then")}</legend>
      <CategoryChoice label={say("office.addCategories")} chosen={actions.categoryIds} />
      <div className="grid grid-cols-2 gap-x-3 gap-y-2 sm:grid-cols-4">
        <Field
          label={say("office.fileItToCode")}
          name="record"
          defaultValue={code}
          problem={problems.record}
          autoComplete="off"
        />
        <ChoiceField
          label={say("office.assignItTo")}
          name="owner"
          value={actions.ownerId ?? ""}
          choices={[["", say("common.nobodyInside")], ...deciding.map(({ id, name }) => [id, name] as const)]}
        />
        <ChoiceField
          label={say("common.urgency")}
          name="urgency"
          value={actions.urgency ?? ""}
          choices={[["", say("office.asItIs")], ...URGENCIES.map((one) => [one, say(URGENCY_NAMES[one])] as const)]}
        />
        <ChoiceField
          label={say("office.and")}
          name="away"
          value={actions.putAway ?? ""}
          choices={[
            ["", say("office.leaveItToSort")],
            ["settle", say("office.settleIt")],
            ["bin", say("office.putItInTheBin")],
          ]}
        />
      </div>
      {problems.actions !== undefined && <p className="text-sm text-late">{problems.actions}</p>}
    </fieldset>
  );
}

type ConditionsProps = {
  readonly title: string;
  readonly before: "" | "not-";
  readonly given: RuleConditions;
  readonly problems: Readonly<Record<string, string>>;
};

const PARTS = [
  ["from", "office.from", "office.addressOrDomainInside"],
  ["to", "office.to", "office.addressOrDomainInside"],
  ["subject", "office.wordsInTheSubject", "office.invoiceDeliveryNote"],
  ["text", "office.wordsInTheText", "office.pleaseFindAttached"],
  ["list", "office.listAsLabel", "office.itsListId"],
] as const;

function Conditions({ title, before, given, problems }: ConditionsProps) {
  const say = useSay(officeTexts);
  const has = given.hasAttachment;
  return (
    <fieldset>
      <legend className="w-full border-b border-hair pb-0.5 font-serif text-[15px]">
        {title} <span className="font-sans text-sm text-soft">{say("office.allThatIsFilledIn")}</span>
      </legend>
      <div className="mt-2 grid grid-cols-2 gap-x-3 gap-y-2 sm:grid-cols-3">
        {PARTS.map(([part, label, example]) => (
          <Field
            key={part}
            label={say(label)}
            name={`${before}${part}`}
            defaultValue={given[part].join(", ")}
            placeholder={say(example)}
            problem={problems[`${before}${part}`]}
            autoComplete="off"
          />
        ))}
        <ChoiceField
          label={say("office.attachment")}
          name={`${before}attachment`}
          value={has === null ? "" : has ? "yes" : "no"}
          choices={[
            ["", say("office.withOrWithout")],
            ["yes", say("office.withOne")],
            ["no", say("office.withoutOne")],
          ]}
        />
      </div>
    </fieldset>
  );
}

const SHOWN = 8;

function Trial({ trial: { of, matches } }: { trial: RuleTrial<string> }) {
  const say = useSay(officeTexts, commonTexts);
  return (
    <section aria-label={say("office.tested")} className="border-t border-rule pt-2 text-sm">
      <p role="status" className="font-semibold">
        {say("office.ofTheNewestMessages", { count: matches.length, of })}
      </p>
      <ul>
        {matches.slice(0, SHOWN).map(({ id, who, subject, why }) => (
          <li key={id} className="border-b border-hair py-0.5">
            <span className="block truncate">
              {who}: <span className="font-serif">{subject || say("common.noSubject")}</span>
            </span>
            <span className="block truncate text-soft">{why}</span>
          </li>
        ))}
      </ul>
      {matches.length > SHOWN && (
        <p className="pt-1 text-soft">
          {say("office.andInside")} {matches.length - SHOWN} {say("office.more")}
        </p>
      )}
    </section>
  );
}
