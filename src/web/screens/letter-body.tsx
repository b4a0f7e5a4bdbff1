import { lazy, type ReactNode, Suspense } from "react";
import { AfterSending } from "./after-sending";
import { DraftSays } from "./draft-says";
import type { Draft } from "./kept-draft";
import { useWhatItSays } from "./use-what-it-says";

const Editor = lazy(() => import("./editor"));

type LetterBodyProps = {
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
  readonly problems: { readonly html?: string; readonly day?: string };
  /** What is wrong with it as a whole; null where nothing is. */
  readonly problem: string | null;
  /** What stands below the text. */
  readonly children?: ReactNode;
};

/** The text of a message of ours, what happens once it is on its way, and what its text asks and promises. */
export function LetterBody({ draft, change, problems, problem, children }: LetterBodyProps) {
  const says = useWhatItSays(draft.html, draft.to);
  return (
    <>
      <Suspense fallback={<p className="mt-2.5 h-[180px] text-soft">Getting the paper ready…</p>}>
        <Editor html={draft.html} problem={problems.html} onChange={(html) => change({ html })} />
      </Suspense>
      {children}
      <AfterSending draft={draft} change={change} problem={problems.day} usual={says.usual} />
      <DraftSays says={says} draft={draft} change={change} />
      {problem !== null && (
        <p role="alert" className="mt-2 text-late">
          {problem}
        </p>
      )}
    </>
  );
}
