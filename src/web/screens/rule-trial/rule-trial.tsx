import { Link } from "react-router";
import type { RuleMoment } from "../../../core/rules/rule";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import type { TrialView } from "../../server/rules/trial-view.server";
import { Button } from "../../ui/button";
import { SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { MessageLine, Pointing } from "./message-line";
import { MonthBars } from "./month-bars";
import type { useTrial } from "./use-trial";

type Trying = ReturnType<typeof useTrial> & {
  readonly moment: RuleMoment;
  /** What says of a conversation that the rule is not meant for it; null where nobody can. */
  readonly notMeantOf: (conversationId: string) => (() => void) | null;
};

/** What a rule would have been for, beside the form: how many, when, which, and where people decided otherwise. */
export function RuleTrialPanel(trying: Trying) {
  const say = useSay(rulesTexts, commonTexts);
  const { trial, problems, moment } = trying;
  const hasProblems = Object.keys(problems).length > 0;
  return (
    <SidePanel label={say("rules.triedOn", { moment })} className="border-rule p-4 max-lg:border-t lg:border-s">
      <h2 className="text-sm font-semibold">{say("rules.triedOn", { moment })}</h2>
      {trial === null || hasProblems ? (
        <p className="mt-2 text-soft">{hasProblems ? say("rules.correctFirst") : say("rules.nothingToTry")}</p>
      ) : (
        <Tried {...trying} trial={trial} />
      )}
    </SidePanel>
  );
}

function Tried({
  trial,
  moment,
  isBusy,
  goesOn,
  goOn,
  stop,
  notMeantOf,
}: Omit<Trying, "trial"> & { readonly trial: TrialView }) {
  const say = useSay(rulesTexts);
  const isChanging = isBusy && !goesOn;
  return (
    <div aria-busy={isChanging} className={isChanging ? "cursor-progress" : ""}>
      <p role="status" className="mt-1">
        <span className="font-serif text-2xl">{say("rules.count", { count: trial.count })}</span>{" "}
        <span className="text-soft">
          {trial.next === null
            ? say("rules.ofAll", { moment, of: trial.of })
            : say("rules.ofTheNewest", { moment, of: trial.of })}
        </span>
      </p>
      {trial.next !== null && (
        <Button
          look="quiet"
          className="-ms-1.5 h-7 px-1.5 text-sm text-act"
          onClick={goesOn ? stop : goOn}
          disabled={isChanging}
        >
          {goesOn ? say("rules.stopTrying") : say("rules.tryOnAll", { moment })}
        </Button>
      )}
      {trial.count > 0 && <Outcome trial={trial} notMeantOf={notMeantOf} />}
    </div>
  );
}

function Outcome({ trial, notMeantOf }: { trial: TrialView } & Pick<Trying, "notMeantOf">) {
  const say = useSay(rulesTexts);
  const { same, otherwise, fresh, months, against, newest, others, count } = trial;
  const verdicts = [
    [same, say("rules.asPeopleDid")],
    [otherwise, say("rules.decidedOtherwise")],
    [fresh, say("rules.wouldBeNew")],
  ] as const;
  return (
    <>
      {months.length > 1 && (
        <div className="mt-3">
          <MonthBars months={months} />
        </div>
      )}
      <dl className="mt-3 grid grid-cols-3 gap-2">
        {verdicts.map(([figure, words]) => (
          <div key={words} className="flex flex-col-reverse">
            <dt className="text-sm text-soft">{words}</dt>
            <dd className="font-serif text-xl">{say("rules.count", { count: figure })}</dd>
          </div>
        ))}
      </dl>
      {others.length > 0 && (
        <ul aria-label={say("rules.otherRules")} className="mt-3 text-sm text-soft">
          {others.map(({ id, name, count: theirs, isLast, isBefore }) => (
            <li key={id}>
              {isLast && isBefore
                ? say("rules.stopsBefore", { name, count: theirs })
                : say("rules.isForToo", { name, count: theirs })}
            </li>
          ))}
        </ul>
      )}
      {against.length > 0 && (
        <Messages
          heading={say("rules.wherePeopleDecidedOtherwise")}
          messages={against}
          left={otherwise}
          notMeantOf={notMeantOf}
        />
      )}
      <Messages heading={say("rules.whichItWouldBeFor")} messages={newest} left={count} notMeantOf={notMeantOf} />
    </>
  );
}

type MessagesProps = {
  readonly heading: string;
  readonly messages: TrialView["newest"];
  /** How many there are, those that are not listed too. */
  readonly left: number;
} & Pick<Trying, "notMeantOf">;

function Messages({ heading, messages, left, notMeantOf }: MessagesProps) {
  const say = useSay(rulesTexts, commonTexts);
  const { tray } = useTray();
  return (
    <section aria-label={heading} className="mt-3">
      <h3 className="border-b border-hair pb-0.5 text-sm font-semibold">{heading}</h3>
      <ul>
        {messages.map(({ id, conversationId, standing, when, who, subject, why, otherwise }) => (
          <li key={id} className="border-b border-hair py-1">
            <Link
              to={`/${tray.slug}/${standing}/${conversationId}`}
              target="_blank"
              className="flex items-baseline gap-2 hover:text-act"
            >
              <MessageLine who={who} subject={subject} when={when} />
            </Link>
            <div className="flex items-baseline gap-2">
              <p
                dir="auto"
                className={`min-w-0 flex-1 truncate text-sm ${otherwise === null ? "text-soft" : "text-late"}`}
              >
                {otherwise ?? why}
              </p>
              <Pointing
                words={say("rules.notMeant")}
                name={say("rules.notMeantOf", { subject: subject || say("common.noSubject") })}
                onPoint={notMeantOf(conversationId)}
              />
            </div>
          </li>
        ))}
      </ul>
      {left > messages.length && (
        <p className="pt-1.5 text-sm text-soft">{say("rules.andMore", { count: left - messages.length })}</p>
      )}
    </section>
  );
}
