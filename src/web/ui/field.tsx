import { type ComponentProps, useId } from "react";

type FieldProps = ComponentProps<"input"> & {
  readonly label: string;
  readonly problem?: string | undefined;
  /** The label stands before the line and not above it. */
  readonly inline?: boolean;
};

/** A labelled line to type in; what is wrong with it stands below it and is read with it. */
export function Field({ label, problem, inline = false, className = "", ...native }: FieldProps) {
  const id = useId();
  return (
    <div
      className={`${inline ? "grid grid-cols-[minmax(52px,max-content)_minmax(0,1fr)] items-center" : ""} ${className}`}
    >
      <label htmlFor={id} className={`text-sm font-semibold ${inline ? "pe-0.5" : "mb-1 block"}`}>
        {label}
      </label>
      <input
        id={id}
        dir={inline ? "auto" : undefined}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        className={`w-full rounded-control border border-rule bg-paper px-2.5 disabled:opacity-60 aria-invalid:border-late ${inline ? "h-[30px]" : "h-9"}`}
        {...native}
      />
      {problem !== undefined && (
        <p id={`${id}-problem`} className={`mt-1 text-sm text-late ${inline ? "col-start-2" : ""}`}>
          {problem}
        </p>
      )}
    </div>
  );
}
