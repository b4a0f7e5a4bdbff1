import { useState } from "react";
import { useNavigate } from "react-router";
import type { AnswerTrigger } from "../../../core/automatic-answers/automatic-answer";
import { trustedId } from "../../../core/kernel/ids";
import { answersTexts } from "../../../texts/en/answers";
import { commonTexts } from "../../../texts/en/common";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Page } from "../../ui/page";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { SpanFields } from "../forms/span-fields";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { NumberField } from "../rules/chosen-ones";
import { conditionOf, editedCondition } from "../rules/edited-condition";
import { PreviewPanel } from "./answer-preview";
import { AnswerTexts, type EditedText } from "./answer-texts";
import type { AnswersOutcome } from "./answers-outcome";
import { usePreview } from "./use-preview";
import type { WrittenAnswer } from "./written-answer";

let made = 0;
const newKey = () => {
  made += 1;
  return `text-${made}`;
};

/** An automatic answer being written or changed; beside it who would have got it. */
export function AnswerEditor({ answer }: { answer: WrittenAnswer }) {
  const say = useSay(answersTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const [draft, setDraft] = useState(answer);
  const [texts, setTexts] = useState<readonly EditedText[]>(() =>
    answer.texts.map((text) => ({ ...text, key: newKey(), condition: editedCondition(text.condition) })),
  );
  const close = () => void navigate(`/${tray.slug}/automatic-answers`);
  const { post, refused, problems, isBusy } = useFormAction<AnswersOutcome>("automatic-answers", close);
  const written: WrittenAnswer = {
    ...draft,
    texts: texts.map(({ key: _, condition, ...text }) => ({ ...text, condition: conditionOf(condition) })),
  };
  const preview = usePreview(written);
  const change = (changed: Partial<WrittenAnswer>) => setDraft({ ...draft, ...changed });
  return (
    <Page
      title={answer.id === null ? say("answers.newAnswer") : say("answers.answerCalled", { name: answer.name })}
      beside={
        <span className="ms-auto flex gap-2">
          <Button look="quiet" onClick={close}>
            {say("common.cancel")}
          </Button>
          <Button look="filled" disabled={isBusy} onClick={() => post({ do: "keep", answer: JSON.stringify(written) })}>
            {say("answers.save")}
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
          <Field
            label={say("common.name")}
            value={draft.name}
            onChange={(event) => change({ name: event.target.value })}
            problem={problems.name}
            autoFocus={answer.id === null}
            autoComplete="off"
            className="max-w-md"
          />
          <section className="space-y-2">
            <Heading>{say("answers.when")}</Heading>
            <TriggerFields trigger={draft.trigger} onChange={(trigger) => change({ trigger })} />
            <SpanFields
              span={draft}
              labels={{ from: say("answers.fromOptional"), until: say("answers.untilOptional") }}
              problems={problems}
              onChange={change}
            />
          </section>
          <section className="space-y-2">
            <Heading>{say("answers.whatIsAnswered")}</Heading>
            <AnswerTexts
              texts={texts}
              problems={problems}
              isAboutAbsence={draft.trigger.kind === "away"}
              newKey={newKey}
              onChange={setTexts}
            />
          </section>
          <section className="space-y-2">
            <Heading>{say("answers.howOften")}</Heading>
            <PaceFields pace={draft.pace} problem={problems.days} onChange={(pace) => change({ pace })} />
            <p className="text-sm text-soft">{say("answers.neverInALoop")}</p>
          </section>
        </div>
        <PreviewPanel {...preview} />
      </div>
    </Page>
  );
}

function Heading({ children }: { children: string }) {
  return <h2 className="border-b border-hair pb-0.5 font-serif text-[15px]">{children}</h2>;
}

type TriggerFieldsProps = { readonly trigger: AnswerTrigger; readonly onChange: (trigger: AnswerTrigger) => void };

function TriggerFields({ trigger, onChange }: TriggerFieldsProps) {
  const say = useSay(answersTexts);
  const { members } = useTray();
  const [first] = members;
  const chosen = (kind: string): AnswerTrigger => {
    if (kind === "away") return { kind, memberId: trustedId(first?.id ?? "") };
    return { kind: kind === "closed" ? "closed" : "always" };
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <Select
        label={say("answers.when")}
        value={trigger.kind}
        choices={[
          ["always", say("answers.always")],
          ["closed", say("answers.whileClosed")],
          ["away", say("answers.whileSomebodyIsAway")],
        ]}
        onChoose={(kind) => onChange(chosen(kind))}
      />
      {trigger.kind === "away" && (
        <>
          <Select
            label={say("answers.colleague")}
            value={trigger.memberId}
            choices={members.map(({ id, name }) => [id, name] as const)}
            onChoose={(id) => onChange({ kind: "away", memberId: trustedId(id) })}
          />
          <span className="text-sm text-soft">{say("answers.toWhatIsTheirs")}</span>
        </>
      )}
    </div>
  );
}

type PaceFieldsProps = {
  readonly pace: WrittenAnswer["pace"];
  readonly problem: string | undefined;
  readonly onChange: (pace: WrittenAnswer["pace"]) => void;
};

function PaceFields({ pace, problem, onChange }: PaceFieldsProps) {
  const say = useSay(answersTexts);
  return (
    <div>
      <div className="flex flex-wrap items-center gap-1.5">
        <Select
          label={say("answers.howOften")}
          value={pace.kind}
          choices={[
            ["once", say("answers.oncePerPersonIn")],
            ["each", say("answers.eachTime")],
          ]}
          onChoose={(kind) => onChange(kind === "each" ? { kind } : { kind: "once", days: 7 })}
        />
        {pace.kind === "once" && (
          <NumberField
            label={say("answers.days")}
            value={pace.days}
            unit={say("answers.days")}
            problem={problem !== undefined}
            onNumber={(days) => onChange({ kind: "once", days: Math.round(days) })}
          />
        )}
      </div>
      {problem !== undefined && <p className="mt-1 text-sm text-late">{problem}</p>}
    </div>
  );
}
