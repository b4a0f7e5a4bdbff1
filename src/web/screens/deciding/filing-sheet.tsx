import { type FormEvent, useState } from "react";
import { allOf } from "../../../core/kernel/all-of";
import type { AskedFields, FieldValues } from "../../../core/records/filing-field";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { Button, KeyCap } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { DayField } from "../forms/day-field";

type FilingSheetProps = {
  readonly asked: AskedFields;
  /** How many conversations are filed with it. */
  readonly count: number;
  /** It is filed there already, and its particulars are changed. */
  readonly changes?: boolean;
  readonly onFile: (fields: FieldValues) => void;
  readonly onClose: () => void;
};

/** What a record wants to know of what is filed on it: once, for all that is filed with it. */
export default function FilingSheet({ asked, count, changes = false, onFile, onClose }: FilingSheetProps) {
  const say = useSay(decidingTexts, commonTexts);
  const [values, setValues] = useState<FieldValues>(
    Object.fromEntries(asked.fields.map(({ key, value }) => [key, value])),
  );
  // Where something has to be typed, and not where the usual stands already.
  const open = asked.fields.findIndex(
    ({ required, value, key }) => (required && value === "") || key in asked.problems,
  );
  const first = Math.max(open, 0);
  const file = (event: FormEvent) => {
    event.preventDefault();
    onFile(values);
  };
  const about = `${asked.code} ${asked.title}`;
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={changes ? say("deciding.detailsFor", { code: asked.code }) : say("deciding.fileTo", { code: asked.code })}
      description={count === 1 ? asked.title : say("deciding.theSameFor", { title: asked.title, them: allOf(count) })}
    >
      <form
        aria-label={about}
        noValidate
        onSubmit={file}
        onKeyDown={(event) => {
          if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) file(event);
        }}
        className="flex min-h-0 flex-col"
      >
        <div className="space-y-3 overflow-y-auto px-4 py-3">
          {asked.fields.map((field, at) => (
            <Asked
              key={field.key}
              field={field}
              value={values[field.key] ?? ""}
              problem={asked.problems[field.key]}
              isFirst={at === first}
              onChange={(value) => setValues((before) => ({ ...before, [field.key]: value }))}
            />
          ))}
        </div>
        <div className="flex justify-end gap-2 border-t border-hair bg-ground px-4 py-2.5">
          <Button look="quiet" onClick={onClose}>
            {changes ? say("common.cancel") : say("deciding.doNotFileIt")}
          </Button>
          <Button look="filled" type="submit">
            {changes ? say("common.save") : say("common.file")} <KeyCap>⏎</KeyCap>
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

type AskedProps = {
  readonly field: AskedFields["fields"][number];
  readonly value: string;
  readonly problem: string | undefined;
  readonly isFirst: boolean;
  readonly onChange: (value: string) => void;
};

function Asked({ field, value, problem, isFirst, onChange }: AskedProps) {
  const label = field.required ? field.label : `${field.label} (optional)`;
  if (field.kind === "date") {
    return (
      <DayField
        label={label}
        start={value}
        onDay={onChange}
        problem={problem}
        required={field.required}
        autoFocus={isFirst}
      />
    );
  }
  if (field.kind !== "choice" && field.kind !== "yes-no") {
    return (
      <Field
        label={label}
        inputMode={field.kind === "number" ? "decimal" : undefined}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        problem={problem}
        required={field.required}
        autoFocus={isFirst}
        autoComplete="off"
      />
    );
  }
  const choices = field.kind === "choice" ? field.choices : ["yes", "no"];
  return (
    <fieldset aria-invalid={problem !== undefined}>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {choices.map((choice, at) => (
          <label key={choice} className="flex min-h-7 cursor-pointer items-center gap-2">
            <input
              type="radio"
              name={field.key}
              checked={value === choice}
              onChange={() => onChange(choice)}
              // biome-ignore lint/a11y/noAutofocus: the sheet is answered at the keyboard
              autoFocus={isFirst && (value === choice || (at === 0 && !choices.includes(value)))}
              className="size-4 accent-act"
            />
            {choice}
          </label>
        ))}
      </div>
      {problem !== undefined && <p className="mt-1 text-sm text-late">{problem}</p>}
    </fieldset>
  );
}
