import { lazy, type ReactNode, Suspense } from "react";
import type { Draft } from "../../../core/writing/draft";
import { writingTexts } from "../../../texts/en/writing";
import { Opening } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { RecipientWarnings } from "../recipients/recipient-warnings";
import { AfterSending } from "./after-sending";
import { DraftAttachments } from "./draft-attachments";
import { GivenCategories } from "./given-categories";
import { TextSuggestionList } from "./text-suggestions";
import { UseTemplate } from "./use-template";
import { useTextSuggestions } from "./use-text-suggestions";
import { withHabits } from "./with-habits";

const Editor = lazy(() => import("../editor/editor"));

type LetterBodyProps = {
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
  readonly problems: { readonly html?: string; readonly day?: string; readonly enclosures?: string };
  /** What is wrong with it as a whole; null where nothing is. */
  readonly problem: string | null;
  /** The codes of the records whose documents can go with it. */
  readonly records: readonly string[];
  /** The conversation that it is in; null where it begins one. */
  readonly conversationId: string | null;
  /** Called with whether a file for it is on its way. */
  readonly onAttaching: (isAttaching: boolean) => void;
  /** What stands below the text. */
  readonly children?: ReactNode;
};

/** The text of a message of ours, what happens once it is on its way, and what its text asks and promises. */
export function LetterBody(props: LetterBodyProps) {
  const { draft, change, problems, problem, records, conversationId, onAttaching, children } = props;
  const say = useSay(writingTexts);
  const says = useTextSuggestions(draft, conversationId);
  return (
    <>
      <RecipientWarnings warnings={says.warnings} draft={draft} change={change} />
      <DraftAttachments
        enclosures={draft.enclosures ?? []}
        problem={problems.enclosures}
        announced={says.encloses}
        {...{ change, records, onAttaching }}
      >
        <Suspense
          fallback={
            <p className="mt-2.5 h-[180px] text-soft">
              <Opening />
              {say("writing.loadingTheEditor")}
            </p>
          }
        >
          <Editor
            html={draft.html}
            problem={problems.html}
            onChange={(html) => change({ html })}
            aside={(insert) => (
              <UseTemplate
                about={{ conversationId, recordCode: draft.files?.code ?? "", to: draft.to }}
                onUse={(used) => {
                  insert(used.html);
                  change(withHabits(draft, used, conversationId === null));
                }}
              />
            )}
          />
        </Suspense>
      </DraftAttachments>
      {children}
      <AfterSending draft={draft} change={change} problem={problems.day} usual={says.usual} />
      <GivenCategories draft={draft} change={change} />
      <TextSuggestionList says={says} draft={draft} change={change} />
      {problem !== null && (
        <p role="alert" className="mt-2 text-late">
          {problem}
        </p>
      )}
    </>
  );
}
