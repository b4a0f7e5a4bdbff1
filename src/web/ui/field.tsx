import { type ComponentProps, useId } from "react";

/** A labelled line to type in; what is wrong with it stands below it and is read with it. */
export function Field({
  label,
  problem,
  className = "",
  ...native
}: ComponentProps<"input"> & { label: string; problem?: string | undefined }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <input
        id={id}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        className="h-9 w-full rounded-control border border-rule bg-paper px-2.5 aria-invalid:border-late"
        {...native}
      />
      {problem !== undefined && (
        <p id={`${id}-problem`} className="mt-1 text-sm text-late">
          {problem}
        </p>
      )}
    </div>
  );
}
