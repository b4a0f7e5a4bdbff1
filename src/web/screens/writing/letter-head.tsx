import type { ReactNode } from "react";
import type { Draft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { RecipientField } from "../recipients/recipient-field";

type LetterHeadProps = {
  readonly draft: Pick<Draft, "to" | "cc" | "bcc" | "subject">;
  readonly change: (part: Partial<Draft>) => void;
  readonly problems: Partial<Record<"to" | "cc" | "bcc" | "subject", string>>;
  /** Whether whom it goes to is what is typed first. */
  readonly begins?: boolean;
  /** What stands below the recipients. */
  readonly children?: ReactNode;
};

/** To whom a message of ours goes, and what it is called. */
export function LetterHead({ draft, change, problems, begins = false, children }: LetterHeadProps) {
  const say = useSay(writingTexts, commonTexts);
  const all = [draft.to, draft.cc, draft.bcc ?? ""].filter((list) => list !== "").join(", ");
  return (
    <div className="grid gap-x-4 gap-y-1.5 sm:grid-cols-2">
      <RecipientField
        label={say("writing.to")}
        value={draft.to}
        all={all}
        onChange={(to) => change({ to })}
        problem={problems.to}
        autoFocus={begins}
      />
      <RecipientField
        label={say("writing.cc")}
        value={draft.cc}
        all={all}
        onChange={(cc) => change({ cc })}
        problem={problems.cc}
      />
      {draft.bcc !== undefined && (
        <RecipientField
          label={say("writing.bcc")}
          value={draft.bcc}
          all={all}
          onChange={(bcc) => change({ bcc })}
          problem={problems.bcc}
          autoFocus={draft.bcc === ""}
        />
      )}
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
