import { useEffect, useState } from "react";
import { Link } from "react-router";
import { DAY } from "../../../core/kernel/instant";
import { ageInWords } from "../../../core/time/age-in-words";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { forgetLocalDraft, saveLocalDraft, type UnsentDraft, unsentDrafts } from "../writing/local-draft";

type Shown = UnsentDraft & { readonly age: string };

/** The drafts that she began on this device more than a day ago: the server knows nothing of them, so she alone sees them. */
export function UnsentDrafts() {
  const say = useSay(waitingTexts, commonTexts);
  const { tray, member } = useTray();
  const [drafts, setDrafts] = useState<readonly Shown[]>([]);
  // Only the browser knows, so they are not there before it has drawn the page.
  useEffect(() => {
    const now = Date.now();
    const found = unsentDrafts(tray.slug, member.id, now - DAY);
    setDrafts(found.map((draft) => ({ ...draft, age: say(ageInWords(now - draft.at)) })));
  }, [tray.slug, member.id, say]);
  const throwAway = (thrown: Shown) => {
    forgetLocalDraft(thrown.name);
    setDrafts((all) => all.filter(({ name }) => name !== thrown.name));
    const undo = () => {
      const { name, draft, conversationId, at } = thrown;
      saveLocalDraft(name, draft, { slug: tray.slug, memberId: member.id, conversationId, at });
      setDrafts((all) => [...all, thrown].toSorted((a, b) => a.at - b.at));
    };
    notice(say("waiting.discardedTheDraft"), { action: { label: say("common.undo"), onClick: undo } });
  };
  if (drafts.length === 0) return null;
  return (
    <section aria-label={say("waiting.unsentDraftsOnThisDevice")}>
      <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
        {say("waiting.unsentDraftsOnThisDevice")} <span className="font-normal text-soft">{drafts.length}</span>
      </h2>
      <ul>
        {drafts.map((one) => (
          <li
            key={one.name}
            className="flex min-h-11 flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair px-4 py-1"
          >
            <span className="min-w-0 flex-1 basis-60">
              <Link
                to={`/${tray.slug}/open/${one.conversationId}`}
                className="block truncate font-serif hover:text-act"
              >
                {one.draft.subject || say("common.noSubject")}
              </Link>
              <span className="block truncate text-sm text-soft">
                {say("waiting.untouchedFor", { age: one.age })}
                {one.draft.to === "" ? "" : say("waiting.to", { to: one.draft.to })}.
              </span>
            </span>
            <Button
              look="quiet"
              className="h-7 px-2 text-sm"
              aria-label={say("waiting.discardTheDraft", { subject: one.draft.subject })}
              onClick={() => throwAway(one)}
            >
              {say("common.discard")}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
