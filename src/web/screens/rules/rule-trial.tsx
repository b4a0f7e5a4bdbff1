import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import type { TrialView } from "../../server/rules/trial-view.server";
import { SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type RuleTrialPanelProps = {
  readonly trial: TrialView | null;
  /** It could not be tried as it stands. */
  readonly hasProblems: boolean;
  readonly isBusy: boolean;
};

/** What a rule would have been for, beside the form: how many of the newest messages, and which. */
export function RuleTrialPanel({ trial, hasProblems, isBusy }: RuleTrialPanelProps) {
  const say = useSay(rulesTexts, commonTexts);
  return (
    <SidePanel
      label={say("rules.triedOn")}
      className={`border-rule p-4 max-lg:border-t lg:border-s ${isBusy ? "opacity-70" : ""}`}
    >
      <h2 className="text-sm font-semibold">{say("rules.triedOn")}</h2>
      {trial === null ? (
        <p className="mt-2 text-soft">{hasProblems ? say("rules.correctFirst") : say("rules.nothingToTry")}</p>
      ) : (
        <>
          <p role="status" className="mt-1">
            <span className="font-serif text-2xl">{trial.count}</span>{" "}
            <span className="text-soft">{say("rules.ofTheNewest", { of: trial.of })}</span>
          </p>
          {trial.count > 0 && <Matches trial={trial} />}
        </>
      )}
    </SidePanel>
  );
}

function Matches({ trial: { count, newest } }: { trial: TrialView }) {
  const say = useSay(rulesTexts, commonTexts);
  const { tray } = useTray();
  return (
    <>
      <ul className="mt-2 border-t border-hair">
        {newest.map(({ id, conversationId, standing, when, who, subject, why }) => (
          <li key={id} className="border-b border-hair py-1">
            <Link
              to={`/${tray.slug}/${standing}/${conversationId}`}
              target="_blank"
              className="flex items-baseline gap-2 hover:text-act"
            >
              <span dir="auto" className="max-w-[40%] shrink-0 truncate">
                {who}
              </span>
              <span dir="auto" className="min-w-0 flex-1 truncate font-serif">
                {subject || say("common.noSubject")}
              </span>
              <span className="shrink-0 text-sm text-soft">{when}</span>
            </Link>
            <p dir="auto" className="truncate text-sm text-soft">
              {why}
            </p>
          </li>
        ))}
      </ul>
      {count > newest.length && (
        <p className="pt-1.5 text-sm text-soft">{say("rules.andMore", { count: count - newest.length })}</p>
      )}
    </>
  );
}
