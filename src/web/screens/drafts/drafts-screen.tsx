import { Link } from "react-router";
import { writingTexts } from "../../../texts/en/writing";
import type { ListedDraftView } from "../../server/writing/own-draft-view.server";
import { BUTTON_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { OwnDraftRow } from "./own-draft-row";

const PARTS = [
  ["own", "writing.yourDrafts"],
  ["to-check", "writing.draftsForYou"],
  ["handed-over", "writing.draftsYouHandedOver"],
  ["discarded", "writing.draftsDiscarded"],
] as const;

/** What one began to write and has not sent, what colleagues handed over, and what was thrown away lately. */
export function DraftsScreen({ drafts }: { readonly drafts: readonly ListedDraftView[] }) {
  const say = useSay(writingTexts);
  const { tray, mayDecide } = useTray();
  return (
    <Page
      title={say("writing.drafts")}
      beside={
        <>
          <Link to={`/${tray.slug}/going-later`} className="ms-auto text-act hover:underline">
            {say("writing.toGoLater")}
          </Link>
          {mayDecide && (
            <Link to={`/${tray.slug}/write`} className={BUTTON_LINK}>
              {say("writing.write")}
            </Link>
          )}
        </>
      }
    >
      {drafts.length === 0 && <p className="px-4 py-6 text-soft">{say("writing.noDraftsYet")}</p>}
      {PARTS.map(([kind, name]) => {
        const some = drafts.filter((draft) => draft.kind === kind);
        return (
          some.length > 0 && (
            <section key={kind} aria-label={say(name)}>
              <h2 className="flex items-baseline gap-2 border-b border-hair bg-ground px-4 py-1 text-sm font-semibold text-soft">
                {say(name)} <span className="font-normal">{some.length}</span>
              </h2>
              <ul>
                {some.map((draft) => (
                  <OwnDraftRow key={draft.id} draft={draft} />
                ))}
              </ul>
            </section>
          )
        );
      })}
    </Page>
  );
}
