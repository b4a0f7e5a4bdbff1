import { writingTexts } from "../../../texts/en/writing";
import { useSay } from "../../ui/texts/use-say";
import type { KeepingState } from "./draft-keeper";

type DraftStateProps = {
  readonly state: KeepingState;
  /** Whether the server keeps it, and not this device alone. */
  readonly isOwn: boolean;
  readonly onKeepAsNew: () => void;
};

/** Where what was typed is kept by now. */
export function DraftState({ state, isOwn, onKeepAsNew }: DraftStateProps) {
  const say = useSay(writingTexts);
  if (!isOwn) return <span className="text-sm text-soft">{say("writing.theDraftIsKeptOn")}</span>;
  switch (state.kind) {
    case "untouched":
    case "differs":
      return null;
    case "saving":
      return <span className="text-sm text-soft">{say("writing.draftIsBeingSaved")}</span>;
    case "saved":
      return <span className="text-sm text-soft">{say("writing.draftIsSaved")}</span>;
    case "unreachable":
      return (
        <span role="status" className="text-sm text-late">
          {say("writing.draftIsOnThisDeviceOnly")}
        </span>
      );
    case "refused":
      return (
        <span role="status" className="text-sm text-late">
          {say("writing.draftIsNotSaved", { problem: state.problem })}
        </span>
      );
    case "ended":
      return (
        <span role="status" className="text-sm text-late">
          {say("writing.draftWasEndedElsewhere")}{" "}
          <button type="button" onClick={onKeepAsNew} className="min-h-6 text-act underline-offset-2 hover:underline">
            {say("writing.keepItAsANewDraft")}
          </button>
        </span>
      );
  }
}
