import type { ReactElement } from "react";
import { Link } from "react-router";
import { trustedId } from "../../../core/kernel/ids";
import { URGENCIES, URGENCY_NAMES, type Urgency } from "../../../core/kernel/urgency";
import type { RuleAction, RuleActionKind } from "../../../core/rules/rule";
import { actionsTexts } from "../../../texts/en/actions";
import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { ACTION_WORDS, type FieldsProps } from "./action-words";
import { NumberField } from "./chosen-ones";
import { FileFields } from "./file-fields";
import { useNamesHere } from "./named-here";
import {
  AnswerFields,
  AnswerWithFields,
  AsBeforeFields,
  RemindFields,
  TurnFields,
  WithAddress,
} from "./outward-fields";

type AnyProps = {
  readonly action: RuleAction;
  readonly isOwn: boolean;
  readonly onChange: (action: RuleAction) => void;
};

/** The fields of one action, as a sentence that is filled in. */
export function ActionFields(props: AnyProps) {
  // The table's type ties each action to its fields; an index by a union loses that tie.
  const Fields = FIELDS[props.action.kind] as (props: AnyProps) => ReactElement;
  return <Fields {...props} />;
}

const FIELDS: { readonly [Kind in RuleActionKind]: (props: FieldsProps<Kind>) => ReactElement } = {
  categorise: CategoriseFields,
  file: FileFields,
  assign: ({ action, onChange }) => (
    <WithMember
      kind="assign"
      id={action.ownerId}
      onId={(ownerId) => onChange({ ...action, ownerId: trustedId(ownerId) })}
    />
  ),
  urgency: UrgencyFields,
  settle: PlainAction,
  bin: PlainAction,
  junk: PlainAction,
  rest: WithDays,
  expect: WithDays,
  expire: WithDays,
  hold: HoldFields,
  "follow-up": FollowUpFields,
  note: ({ action, onChange }) => (
    <WithText kind="note" text={action.text} onText={(text) => onChange({ ...action, text })} />
  ),
  follow: ({ action, onChange }) => (
    <WithMember
      kind="follow"
      id={action.memberId}
      onId={(memberId) => onChange({ ...action, memberId: trustedId(memberId) })}
    />
  ),
  tell: ({ action, onChange }) => (
    <WithMember
      kind="tell"
      id={action.memberId}
      onId={(memberId) => onChange({ ...action, memberId: trustedId(memberId) })}
    />
  ),
  remind: RemindFields,
  "ask-report": PlainAction,
  "assign-in-turn": TurnFields,
  "assign-as-before": AsBeforeFields,
  answer: AnswerFields,
  "answer-with": AnswerWithFields,
  forward: WithAddress,
  redirect: WithAddress,
};

function PlainAction({ action: { kind } }: FieldsProps<"settle" | "bin" | "junk" | "ask-report">) {
  return <span className="py-1">{useSay(rulesTexts, actionsTexts)(ACTION_WORDS[kind])}</span>;
}

function CategoriseFields({ action, onChange }: FieldsProps<"categorise">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { categories } = useTray();
  const offered = categories.filter(({ id, retired }) => !retired || id === action.categoryId);
  return (
    <>
      <Select
        label={say(ACTION_WORDS.categorise)}
        value={action.give ? "give" : "take"}
        choices={[
          ["give", say("rules.addCategory")],
          ["take", say("rules.takeCategoryOff")],
        ]}
        onChoose={(how) => onChange({ ...action, give: how === "give" })}
      />
      <Select
        label={say("rules.kindCategory")}
        value={action.categoryId}
        choices={offered.map(({ id, path }) => [id, path.join(" › ")] as const)}
        onChoose={(id) => onChange({ ...action, categoryId: trustedId(id) })}
      />
    </>
  );
}

function UrgencyFields({ action, onChange }: FieldsProps<"urgency">) {
  const say = useSay(rulesTexts, actionsTexts);
  return (
    <>
      <span>{say(ACTION_WORDS.urgency)}</span>
      <Select
        label={say("rules.kindUrgency")}
        value={action.urgency}
        choices={URGENCIES.map((one) => [one, say(URGENCY_NAMES[one])] as const)}
        onChoose={(urgency) => onChange({ ...action, urgency: urgency as Urgency })}
      />
    </>
  );
}

function WithDays({ action, onChange }: FieldsProps<"rest" | "expect" | "expire">) {
  const say = useSay(rulesTexts, actionsTexts);
  return (
    <>
      <span>{say(ACTION_WORDS[action.kind])}</span>
      <NumberField
        label={say("rules.workingDays")}
        value={action.workingDays}
        unit={say("rules.workingDays")}
        onNumber={(days) => onChange({ ...action, workingDays: Math.round(days) })}
      />
    </>
  );
}

function HoldFields({ action, onChange }: FieldsProps<"hold">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { tray } = useTray();
  const { rounds } = useNamesHere();
  if (rounds.length === 0) {
    return (
      <>
        <span>{say(ACTION_WORDS.hold)}</span>
        <Link to={`/${tray.slug}/rounds`} className="text-act underline underline-offset-2">
          {say("rules.makeARoundFirst")}
        </Link>
      </>
    );
  }
  return (
    <>
      <span>{say(ACTION_WORDS.hold)}</span>
      <Select
        label={say("rules.round")}
        value={action.roundId}
        choices={rounds.map(({ id, name }) => [id, name] as const)}
        onChoose={(id) => onChange({ ...action, roundId: trustedId(id) })}
      />
    </>
  );
}

function FollowUpFields({ action, isOwn, onChange }: FieldsProps<"follow-up">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { members } = useTray();
  return (
    <>
      <WithText kind="follow-up" text={action.text} onText={(text) => onChange({ ...action, text })} />
      {!isOwn && (
        <Select
          label={say("rules.forWhom")}
          value={action.forMember ?? ""}
          choices={[["", say("rules.forTheOwner")], ...members.map(({ id, name }) => [id, name] as const)]}
          onChoose={(id) => onChange({ ...action, forMember: id === "" ? null : trustedId(id) })}
        />
      )}
      <NumberField
        label={say("rules.workingDays")}
        value={action.workingDays}
        unit={say("rules.workingDays")}
        onNumber={(days) => onChange({ ...action, workingDays: Math.round(days) })}
      />
    </>
  );
}

type WithMemberProps = {
  readonly kind: "assign" | "follow" | "tell";
  readonly id: string;
  readonly onId: (id: string) => void;
};

function WithMember({ kind, id, onId }: WithMemberProps) {
  const say = useSay(rulesTexts, actionsTexts);
  const { members } = useTray();
  const offered = kind === "assign" ? members.filter(({ reads }) => !reads) : members;
  return (
    <>
      <span>{say(ACTION_WORDS[kind])}</span>
      <Select
        label={say("rules.member")}
        value={id}
        choices={offered.map((member) => [member.id, member.name] as const)}
        onChoose={onId}
      />
    </>
  );
}

type WithTextProps = {
  readonly kind: "note" | "follow-up";
  readonly text: string;
  readonly onText: (text: string) => void;
};

function WithText({ kind, text, onText }: WithTextProps) {
  const say = useSay(rulesTexts, actionsTexts);
  return (
    <>
      <span>{say(ACTION_WORDS[kind])}</span>
      <input
        aria-label={say("rules.text")}
        value={text}
        placeholder={say("rules.whatItSays")}
        autoComplete="off"
        onChange={(event) => onText(event.target.value)}
        className="h-8 min-w-48 flex-1 rounded-control border border-rule bg-paper px-2 placeholder:text-soft"
      />
    </>
  );
}
