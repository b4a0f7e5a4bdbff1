import { X } from "lucide-react";
import { useState } from "react";
import { codeOf, readCodePattern } from "../../../core/records/code-pattern";
import { FIELD_KINDS, type FilingField } from "../../../core/records/filing-field";
import type { RecordType } from "../../../core/records/record-type";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { PlainKey } from "../../../texts/say";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { SideForm } from "../forms/side-form";
import { useFormAction } from "../forms/use-form-action";

const KIND_NAMES: Readonly<Record<FilingField["kind"], PlainKey<typeof recordsTexts>>> = {
  text: "records.text",
  choice: "records.aChoice",
  date: "records.aDay",
  person: "records.aPerson",
  number: "records.aNumber",
  "yes-no": "records.yesOrNo",
};

type RecordTypeFormProps = {
  readonly type: RecordType | null;
  /** `YYYY-MM-DD`, for the example of a code. */
  readonly today: string;
  readonly onClose: () => void;
};

/** A new type of records, or one that is changed. */
export function RecordTypeForm({ type, today, onClose }: RecordTypeFormProps) {
  const say = useSay(recordsTexts, commonTexts);
  const step = useFormAction("record-types", onClose);
  const [codePattern, setPattern] = useState(type?.codePattern ?? "");
  const [fields, setFields] = useState<readonly FilingField[]>(type?.fields ?? []);
  const problems = step.refused?.problems ?? {};
  const pattern = readCodePattern(codePattern);
  const change = (key: string, part: Partial<FilingField>) =>
    setFields((all) => all.map((field) => (field.key === key ? { ...field, ...part } : field)));
  const add = () =>
    setFields((all) => [
      ...all,
      {
        key: crypto.randomUUID(),
        label: "",
        kind: "text",
        required: false,
        choices: [],
        start: "",
        remembers: false,
      },
    ]);
  return (
    <SideForm
      name={type === null ? say("records.newType") : say("common.changeOf", { name: type.name })}
      step={step}
      submits={say("records.saveType")}
      onClose={onClose}
    >
      <input type="hidden" name="id" value={type?.id ?? ""} />
      <input type="hidden" name="fields" value={JSON.stringify(fields)} />
      <Field
        label={say("common.name")}
        name="name"
        defaultValue={type?.name ?? ""}
        placeholder={say("records.clientProjectCase")}
        problem={problems.name}
        autoFocus
        autoComplete="off"
      />
      <div>
        <Field
          label={say("records.codePattern")}
          name="codePattern"
          value={codePattern}
          onChange={(event) => setPattern(event.target.value)}
          placeholder={say("records.aCodePattern")}
          problem={problems.codePattern}
          autoComplete="off"
        />
        <p className="mt-1 text-sm text-soft">
          {pattern.ok
            ? say("records.theFirstOfTodayWould", { code: codeOf(pattern.value, today, 1) })
            : say("records.yyYyyyAndMmAre")}
        </p>
      </div>
      <fieldset>
        <legend className="text-sm font-semibold">{say("records.fieldsAskedWhenFiling")}</legend>
        {fields.length === 0 && <p className="py-1 text-sm text-soft">{say("records.nothingItIsFiledWith")}</p>}
        <ul className="space-y-2 pt-1">
          {fields.map((field, at) => (
            <FieldLine
              key={field.key}
              field={field}
              at={at}
              onChange={(part) => change(field.key, part)}
              onRemove={() => setFields((all) => all.filter(({ key }) => key !== field.key))}
            />
          ))}
        </ul>
        <Button look="quiet" className="-ml-2 mt-1 h-7 px-2 text-sm" onClick={add}>
          {say("records.addAField")}
        </Button>
        {problems.fields !== undefined && (
          <p role="alert" className="text-sm text-late">
            {problems.fields}
          </p>
        )}
      </fieldset>
    </SideForm>
  );
}

type FieldLineProps = {
  readonly field: FilingField;
  readonly at: number;
  readonly onChange: (part: Partial<FilingField>) => void;
  readonly onRemove: () => void;
};

const INPUT = "h-8 min-w-0 rounded-control border border-rule bg-paper px-2";

function FieldLine({ field, at, onChange, onRemove }: FieldLineProps) {
  const say = useSay(recordsTexts, commonTexts);
  const name = field.label || say("records.field", { at: at + 1 });
  return (
    <li className="rounded-control border border-hair p-2">
      <div className="flex items-center gap-2">
        <input
          aria-label={say("records.nameOfField", { at: at + 1 })}
          value={field.label}
          onChange={(event) => onChange({ label: event.target.value })}
          placeholder={say("records.label")}
          className={`${INPUT} flex-1`}
        />
        <Select
          label={say("records.kindOf", { name })}
          value={field.kind}
          choices={FIELD_KINDS.map((kind) => [kind, say(KIND_NAMES[kind])] as const)}
          onChoose={(kind) => onChange({ kind: kind as FilingField["kind"] })}
        />
        <button
          type="button"
          aria-label={say("common.removeOf", { name })}
          onClick={onRemove}
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
        >
          <X size={14} aria-hidden />
        </button>
      </div>
      <div className="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1.5 text-sm">
        {field.kind === "choice" && (
          <input
            aria-label={say("records.choicesOf", { name })}
            value={field.choices.join(", ")}
            onChange={(event) => onChange({ choices: event.target.value.split(",").map((one) => one.trimStart()) })}
            onBlur={() => onChange({ choices: field.choices.map((one) => one.trim()).filter(Boolean) })}
            placeholder={say("records.choicesWithCommasBetween")}
            className={`${INPUT} w-full`}
          />
        )}
        <input
          aria-label={say("records.defaultOf", { name })}
          value={field.start}
          onChange={(event) => onChange({ start: event.target.value })}
          placeholder={say("records.default")}
          className={`${INPUT} w-32`}
        />
        <Tick checked={field.required} onTick={(required) => onChange({ required })}>
          {say("records.neededInside")}
        </Tick>
        <Tick checked={field.remembers} onTick={(remembers) => onChange({ remembers })}>
          {say("records.defaultWhatIEnteredLast")}
        </Tick>
      </div>
    </li>
  );
}
