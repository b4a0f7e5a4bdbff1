import { Plus } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";
import { actionInWords } from "../../../core/rules/action-in-words";
import { whichMessagesInWords } from "../../../core/rules/condition-in-words";
import type { RuleMoment } from "../../../core/rules/rule";
import { commonTexts } from "../../../texts/en/common";
import { rulesTexts } from "../../../texts/en/rules";
import { type Said, saidOf } from "../../../texts/said";
import type { LearnedView } from "../../server/rules/learned-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { problemsWithin } from "../forms/problems-within";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { RuleTrialPanel } from "../rule-trial/rule-trial";
import type { RulesOutcome } from "../rule-trial/rules-outcome";
import { useTrial } from "../rule-trial/use-trial";
import type { WrittenRule } from "../rule-trial/written-rule";
import { ActionEditor, type EditedAction, newAction } from "./action-editor";
import { ADD_BUTTON, ConditionEditor } from "./condition-editor";
import {
  blankTest,
  conditionOf,
  type EditedGroup,
  editedCondition,
  finished,
  finishedInPlace,
  newGroup,
  newTest,
} from "./edited-condition";
import { MomentFields } from "./moment-fields";
import { Proposals } from "./proposals";
import { useLearned } from "./use-learned";
import { useRuleNames } from "./use-rule-names";
import { WhoseFields } from "./whose-fields";

type Problems = Readonly<Record<string, string>>;

type RuleEditorProps = {
  readonly rule: WrittenRule;
  readonly learned: LearnedView | null;
  /** The proposal that it comes from; empty for none. */
  readonly proposalId: string;
};

/** A rule being written or changed, as a sentence that is filled in; beside it what it would have been for. */
export function RuleEditor({ rule, learned, proposalId }: RuleEditorProps) {
  const say = useSay(rulesTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const [name, setName] = useState(rule.name);
  const [condition, setCondition] = useState(() => editedCondition(rule.condition));
  const [exception, setException] = useState<EditedGroup | null>(() =>
    rule.exception === null ? null : editedCondition(rule.exception),
  );
  const [actions, setActions] = useState<readonly EditedAction[]>(() => rule.actions.map(newAction));
  const { chosen, choose, notMeantOf, onMeant } = useLearned(learned, rule.condition, (one) =>
    setCondition(editedCondition(one)),
  );
  const [times, setTimes] = useState(rule.times);
  const [typedName, setTypedName] = useState("");
  const [isLast, setLast] = useState(rule.isLast);
  const [whose, setWhose] = useState({ isOwn: rule.isOwn, isEverywhere: rule.isEverywhere });
  const close = () => void navigate(`/${tray.slug}/rules`);
  const { post, refused, isBusy } = useFormAction<RulesOutcome>("rules", close);
  const written = {
    ...{ id: rule.id, name, isOn: rule.isOn, isLast: isLast && !whose.isOwn, ...whose, times },
    actions: actions.map(({ action }) => action),
  };
  const trial = useTrial(
    finished(condition) === null
      ? null
      : {
          ...written,
          condition: finishedInPlace(condition),
          exception: exception === null || finished(exception) === null ? null : finishedInPlace(exception),
        },
  );
  const save = (how: "keep" | "keep-and-run") => {
    const whole = {
      ...written,
      condition: conditionOf(condition),
      exception: exception === null ? null : conditionOf(exception),
    };
    post({ do: how, rule: JSON.stringify(whole), "tray-name": typedName, proposal: proposalId });
  };
  const problems: Problems = refused?.problems ?? trial.problems;
  return (
    <Page
      title={say(titleOf(rule, learned))}
      beside={
        <span className="ms-auto flex gap-2">
          <Button look="quiet" onClick={close}>
            {say("common.cancel")}
          </Button>
          <Button disabled={isBusy} onClick={() => save("keep-and-run")}>
            {say("rules.saveAndRun")}
          </Button>
          <Button look="filled" disabled={isBusy} onClick={() => save("keep")}>
            {say("rules.saveRule")}
          </Button>
        </span>
      }
    >
      <div className="grid min-h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(320px,400px)]">
        <div className="space-y-5 px-5 py-4">
          {refused?.problem != null && (
            <p role="alert" className="text-late">
              {refused.problem}
            </p>
          )}
          {learned !== null && <Proposals learned={learned} chosen={chosen} onChoose={choose} onMeant={onMeant} />}
          {refused?.problems["tray-name"] !== undefined && (
            <Field
              label={say("rules.trayName")}
              value={typedName}
              onChange={(event) => setTypedName(event.target.value)}
              problem={refused.problems["tray-name"]}
              autoFocus
              autoComplete="off"
              className="max-w-md"
            />
          )}
          <Field
            label={say("common.name")}
            value={name}
            onChange={(event) => setName(event.target.value)}
            problem={refused?.problems.name}
            autoFocus={rule.id === null}
            autoComplete="off"
            className="max-w-md"
          />
          <WhoseFields
            whose={whose}
            isNew={rule.id === null && learned === null}
            problem={refused?.problems.everywhere}
            onChange={(changed) => setWhose({ ...whose, ...changed })}
          />
          <Sentence moment={times.moment} condition={condition} exception={exception} actions={actions} />
          <section className="space-y-2">
            <Heading>{say("rules.whenItIsAsked")}</Heading>
            <MomentFields
              times={times}
              problems={refused?.problems ?? {}}
              onChange={(changed) => setTimes({ ...times, ...changed })}
            />
          </section>
          <section>
            <Heading>{say("rules.whichMessages")}</Heading>
            <ConditionEditor
              label={say("rules.whichMessages")}
              group={condition}
              problems={problemsWithin(problems, "condition")}
              onChange={setCondition}
            />
          </section>
          <section>
            <Heading>{say("rules.exceptions")}</Heading>
            {exception === null ? (
              <button
                type="button"
                onClick={() => setException(newGroup("any", [newTest(blankTest("text"))]))}
                className={`${ADD_BUTTON} ms-9`}
              >
                <Plus size={14} aria-hidden />
                {say("rules.addAnException")}
              </button>
            ) : (
              <ConditionEditor
                label={say("rules.exceptions")}
                group={exception}
                problems={problemsWithin(problems, "exception")}
                onChange={(group) => setException(group.of.length === 0 ? null : group)}
              />
            )}
          </section>
          <section>
            <Heading>{say("rules.whatItDoes")}</Heading>
            <ActionEditor
              actions={actions}
              isOwn={whose.isOwn}
              problems={problemsWithin(refused?.problems ?? {}, "actions")}
              byHand={learned}
              onChange={setActions}
            />
            {!whose.isOwn && (
              <Tick checked={isLast} onTick={setLast} className="mt-3">
                {say("rules.stopHere")}
              </Tick>
            )}
          </section>
        </div>
        <RuleTrialPanel {...trial} moment={times.moment} notMeantOf={notMeantOf} />
      </div>
    </Page>
  );
}

const said = saidOf(rulesTexts);

function titleOf(rule: WrittenRule, learned: LearnedView | null): Said {
  if (rule.id !== null) return said("rules.ruleCalled", { name: rule.name });
  return learned === null ? said("rules.newRule") : said("rules.ruleFrom", { count: learned.examples.length });
}

function Heading({ children }: { children: string }) {
  return <h2 className="mb-2 border-b border-hair pb-0.5 font-serif text-[15px]">{children}</h2>;
}

type SentenceProps = {
  readonly moment: RuleMoment;
  readonly condition: EditedGroup;
  readonly exception: EditedGroup | null;
  readonly actions: readonly EditedAction[];
};

function Sentence({ moment, condition, exception, actions }: SentenceProps) {
  const say = useSay(rulesTexts);
  const names = useRuleNames();
  const asked = finished(condition);
  if (asked === null) return null;
  const which = { condition: asked, exception: exception === null ? null : finished(exception) };
  const does = actions.map(({ action }) => actionInWords(action, names));
  return (
    <p className="max-w-3xl font-serif text-[17px] leading-snug text-ink">
      {say("rules.sentence", {
        moment,
        which: whichMessagesInWords(which, names),
        what: does.length === 0 ? say("rules.doesNothingYet") : { all: does, by: "and" },
      })}
    </p>
  );
}
