import type { ReactNode } from "react";
import type { Draft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";

type LetterHeadProps = {
  readonly draft: Pick<Draft, "to" | "cc" | "subject">;
  readonly change: (part: Partial<Draft>) => void;
  readonly problems: Partial<Record<"to" | "cc" | "subject", string>>;
  /** Whether whom it goes to is what is typed first. */
  readonly begins?: boolean;
  /** What stands below the recipients. */
  readonly children?: ReactNode;
};

/** To whom a message of ours goes, and what it is called. */
export function LetterHead({ draft, change, problems, begins = false, children }: LetterHeadProps) {
  const say = useSay(writingTexts, commonTexts);
  return (
    <div className="grid gap-x-4 gap-y-1.5 sm:grid-cols-2">
      <Field
        inline
        label={say("writing.to")}
        value={draft.to}
        onChange={(event) => change({ to: event.target.value })}
        problem={problems.to}
        autoComplete="off"
        autoFocus={begins}
      />
      <Field
        inline
        label={say("writing.cc")}
        value={draft.cc}
        onChange={(event) => change({ cc: event.target.value })}
        problem={problems.cc}
        autoComplete="off"
      />
      {children}
      <Field
        inline
        className="sm:col-span-2"
        label={say("common.subject")}
        value={draft.subject}
        onChange={(event) => change({ subject: event.target.value })}
        problem={problems.subject}
        autoComplete="off"
      />
    </div>
  );
}
