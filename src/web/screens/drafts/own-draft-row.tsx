import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { ListedDraftView } from "../../server/writing/own-draft-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useDraftStep } from "./use-draft-step";

/** A draft in a list: what it is about, to whom it goes, how it begins, when it was last written on. */
export function OwnDraftRow({ draft }: { readonly draft: ListedDraftView }) {
  const say = useSay(writingTexts, commonTexts);
  const { tray, members } = useTray();
  const { throwAway, bringBack } = useDraftStep();
  const { id, kind, place, to, text, when, otherId } = draft;
  const other = members.find((member) => member.id === otherId);
  const subject = draft.subject.trim() || say("common.noSubject");
  return (
    <li className="relative flex min-h-12 items-center gap-x-3 border-b border-hair px-4 py-1.5 hover:bg-ground/70">
      <span className="min-w-0 flex-1">
        <span className="flex items-baseline gap-x-2">
          {kind === "discarded" ? (
            <span dir="auto" className="truncate font-serif text-soft">
              {subject}
            </span>
          ) : (
            <Link
              to={`/${tray.slug}/${place}`}
              dir="auto"
              className="truncate font-serif after:absolute after:inset-0 hover:text-act"
            >
              {subject}
            </Link>
          )}
          {other !== undefined && <span className="shrink-0 text-sm text-soft">{other.name}</span>}
        </span>
        <span dir="auto" className="block truncate text-sm text-soft">
          {say("writing.toWhom", { to: to || say("writing.nobodyYet") })}
          {text === "" ? "" : ` · ${text}`}
        </span>
      </span>
      <span className="shrink-0 text-sm text-soft">{when}</span>
      {(kind === "own" || kind === "discarded") && (
        <Button
          look="quiet"
          className="relative h-7 px-2 text-sm"
          aria-label={
            kind === "own" ? say("writing.discardTheDraft", { subject }) : say("writing.bringBackTheDraft", { subject })
          }
          onClick={() => (kind === "own" ? throwAway(id) : bringBack(id))}
        >
          {kind === "own" ? say("common.discard") : say("common.bringBack")}
        </Button>
      )}
    </li>
  );
}
