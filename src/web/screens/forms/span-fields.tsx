import { Field } from "../../ui/field";
import type { FormProblems } from "./use-form-action";

/** From when until when, by days and times of day; empty for no bound. */
export type WrittenSpan = { readonly from: string; readonly until: string };

type SpanFieldsProps = {
  readonly span: WrittenSpan;
  readonly labels: { readonly [Edge in keyof WrittenSpan]: string };
  readonly problems: FormProblems;
  readonly onChange: (changed: Partial<WrittenSpan>) => void;
};

export function SpanFields({ span, labels, problems, onChange }: SpanFieldsProps) {
  return (
    <div className="flex flex-wrap gap-3">
      {(["from", "until"] as const).map((edge) => (
        <Field
          key={edge}
          type="datetime-local"
          label={labels[edge]}
          value={span[edge]}
          onChange={(event) => onChange({ [edge]: event.target.value })}
          problem={problems[edge]}
          className="w-60"
        />
      ))}
    </div>
  );
}
