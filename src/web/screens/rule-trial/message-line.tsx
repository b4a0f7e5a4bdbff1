import { commonTexts } from "../../../texts/en/common";
import { useSay } from "../../ui/texts/use-say";

type MessageLineProps = { readonly who: string; readonly subject: string; readonly when: string };

/** The parts of one message's line, where a rule is learned or tried: from whom, about what, when. */
export function MessageLine({ who, subject, when }: MessageLineProps) {
  const say = useSay(commonTexts);
  return (
    <>
      <span dir="auto" className="w-1/4 min-w-26 shrink-0 truncate">
        {who}
      </span>
      <span dir="auto" className="min-w-0 flex-1 truncate font-serif">
        {subject || say("common.noSubject")}
      </span>
      <span className="shrink-0 text-sm text-soft">{when}</span>
    </>
  );
}

type PointingProps = {
  readonly words: string;
  /** The same with the subject, for those who do not see the line. */
  readonly name: string;
  readonly onPoint: (() => void) | null;
};

/** What says of the message in a line whether a rule is meant for it; nothing where that cannot be said. */
export function Pointing({ words, name, onPoint }: PointingProps) {
  if (onPoint === null) return null;
  return (
    <button
      type="button"
      aria-label={name}
      onClick={onPoint}
      className="-me-1 min-h-6 shrink-0 rounded-control px-1 text-sm text-act underline-offset-2 hover:underline"
    >
      {words}
    </button>
  );
}
