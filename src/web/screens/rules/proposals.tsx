import type { Condition } from "../../../core/rules/condition";
import { conditionInWords } from "../../../core/rules/condition-in-words";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import type { LearnedView } from "../../server/rules/learned-view.server";
import { useSay } from "../../ui/texts/use-say";
import { MessageLine, Pointing } from "../rule-trial/message-line";
import { MonthBars } from "../rule-trial/month-bars";
import { useRuleNames } from "./use-rule-names";

type ProposalsProps = {
  readonly learned: LearnedView;
  /** The condition that is in the form, as it was written. */
  readonly chosen: string;
  readonly onChoose: (condition: Condition) => void;
  /** One that was said not to be meant is, after all. */
  readonly onMeant: (conversationId: string) => void;
};

/** What the chosen conversations have in common, in a few ways to choose from, and which conversations they were. */
export function Proposals({ learned, chosen, onChoose, onMeant }: ProposalsProps) {
  const say = useSay(rulesTexts, commonTexts);
  const names = useRuleNames();
  const { proposals, examples, notMeant } = learned;
  return (
    <section aria-label={say("rules.inCommon")}>
      <h2 className="mb-2 border-b border-hair pb-0.5 font-serif text-[15px]">{say("rules.inCommon")}</h2>
      <div role="radiogroup" aria-label={say("rules.inCommon")} className="grid gap-2 sm:grid-cols-3">
        {proposals.map(({ condition, takes, count, otherwise, months }) => {
          const written = JSON.stringify(condition);
          const isChosen = written === chosen;
          return (
            <label
              key={written}
              className={`cursor-pointer rounded-sheet border px-3 py-2 ${isChosen ? "border-act bg-act-soft" : "border-rule hover:border-act"}`}
            >
              <input
                type="radio"
                name="proposal"
                className="sr-only"
                checked={isChosen}
                onChange={() => onChoose(condition)}
              />
              <span dir="auto" className="block font-semibold">
                {say("rules.oneOf", { all: conditionInWords(condition, names) })}
              </span>
              <span className="mt-1 flex items-end gap-2">
                <span className="font-serif text-xl">{say("rules.count", { count })}</span>
                <MonthBars months={months} />
              </span>
              <span className="block text-sm text-soft">{say("rules.takesOf", { takes, of: examples.length })}</span>
              {otherwise > 0 && (
                <span className="block text-sm text-late">{say("rules.treatedOtherwise", { count: otherwise })}</span>
              )}
            </label>
          );
        })}
      </div>
      <details className="mt-2">
        <summary className="cursor-pointer text-sm font-semibold text-act">
          {say("rules.fromExamples", { count: examples.length })}
        </summary>
        <ul className="mt-1 max-w-2xl border-t border-hair">
          {examples.map((one) => (
            <LearnedFrom key={one.id} one={one} onMeant={null} />
          ))}
        </ul>
      </details>
      {notMeant.length > 0 && (
        <section aria-label={say("rules.areNotMeant")} className="mt-3 max-w-2xl">
          <h3 className="border-b border-hair pb-0.5 text-sm font-semibold">{say("rules.areNotMeant")}</h3>
          <ul>
            {notMeant.map((one) => (
              <LearnedFrom key={one.id} one={one} onMeant={() => onMeant(one.id)} />
            ))}
          </ul>
        </section>
      )}
    </section>
  );
}

type LearnedFromProps = { readonly one: LearnedView["examples"][number]; readonly onMeant: (() => void) | null };

function LearnedFrom({ one: { who, subject, when }, onMeant }: LearnedFromProps) {
  const say = useSay(rulesTexts, commonTexts);
  return (
    <li className="flex items-baseline gap-2 border-b border-hair py-1">
      <MessageLine who={who} subject={subject} when={when} />
      <Pointing
        words={say("rules.isMeant")}
        name={say("rules.isMeantOf", { subject: subject || say("common.noSubject") })}
        onPoint={onMeant}
      />
    </li>
  );
}
