import { Link } from "react-router";
import { answersTexts } from "../../../texts/en/answers";
import { SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import type { usePreview } from "./use-preview";

/** Who would have got what in the last two weeks, beside the form. */
export function PreviewPanel({ preview, hasProblems, isBusy }: ReturnType<typeof usePreview>) {
  const say = useSay(answersTexts);
  const { tray } = useTray();
  return (
    <SidePanel label={say("answers.lastTwoWeeks")} className="border-rule p-4 max-lg:border-t lg:border-s">
      <h2 className="text-sm font-semibold">{say("answers.lastTwoWeeks")}</h2>
      {preview === null ? (
        <p className="mt-2 text-soft">{hasProblems ? say("answers.correctFirst") : say("answers.looking")}</p>
      ) : (
        <div aria-busy={isBusy} className={isBusy ? "cursor-progress" : ""}>
          <p role="status" className="mt-1">
            <span className="font-serif text-2xl">{preview.count}</span>{" "}
            <span className="text-soft">
              {say("answers.toPeople", { count: preview.count, people: preview.people, of: preview.of })}
            </span>
          </p>
          <ol aria-label={say("answers.whoWouldHaveGotIt")} className="mt-2 border-t border-hair">
            {preview.newest.map(({ id, when, who, subject, text }) => (
              <li key={`${id} ${when} ${who}`} className="border-b border-hair py-1.5">
                <Link to={`/${tray.slug}/open/${id}`} className="block truncate font-serif hover:underline">
                  {subject || say("answers.noSubject")}
                </Link>
                <p className="truncate text-sm text-soft">
                  {who} · {when} · {say("answers.textNumber", { at: text + 1 })}
                </p>
              </li>
            ))}
          </ol>
          {preview.not.length > 0 && (
            <>
              <h3 className="mt-4 text-sm font-semibold">{say("answers.notAnswered")}</h3>
              <ul className="mt-1 space-y-0.5 text-sm text-soft">
                {preview.not.map(({ reason, words }) => (
                  <li key={reason}>{words}</li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
    </SidePanel>
  );
}
