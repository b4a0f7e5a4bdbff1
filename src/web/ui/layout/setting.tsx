import type { ComponentProps, ReactNode } from "react";

type SettingProps = {
  readonly name: ReactNode;
  /** What comes of it. */
  readonly about?: ReactNode;
  /** The control that it names; left out where the control has a name of its own. */
  readonly htmlFor?: string;
  readonly children: ReactNode;
};

/** One setting: what it is called and what comes of it, and the control beside the words. */
export function Setting({ name, about, htmlFor, children }: SettingProps) {
  return (
    <div className="grid items-start gap-x-8 gap-y-2 border-b border-hair py-3.5 last:border-b-0 sm:grid-cols-[300px_minmax(0,1fr)]">
      <div>
        {htmlFor === undefined ? (
          <p aria-hidden className="font-semibold">
            {name}
          </p>
        ) : (
          <label htmlFor={htmlFor} className="font-semibold">
            {name}
          </label>
        )}
        {about !== undefined && <p className="mt-0.5 text-sm text-soft">{about}</p>}
      </div>
      <div className="min-w-0">{children}</div>
    </div>
  );
}

type SettingInputProps = Omit<ComponentProps<"input">, "name"> & {
  /** Also what it is posted as. */
  readonly id: string;
  readonly problem: string | undefined;
};

/** A field beside its words, with what is wrong with it below. */
export function SettingInput({ id, problem, className, ...input }: SettingInputProps) {
  return (
    <>
      <input
        id={id}
        name={id}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        className={`h-9 rounded-control border border-rule bg-paper px-2.5 placeholder:text-soft disabled:opacity-60 aria-invalid:border-late ${className ?? ""}`}
        {...input}
      />
      {problem !== undefined && (
        <p id={`${id}-problem`} className="mt-0.5 text-sm text-late">
          {problem}
        </p>
      )}
    </>
  );
}
