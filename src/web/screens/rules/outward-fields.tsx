import { Link } from "react-router";
import type { EmailAddress } from "../../../core/kernel/email-address";
import { trustedId } from "../../../core/kernel/ids";
import { REMINDER_LANGUAGES, TONES } from "../../../core/kernel/reminder-style";
import { actionsTexts } from "../../../texts/en/actions";
import { rulesTexts } from "../../../texts/en/rules";
import { waitingTexts } from "../../../texts/en/waiting";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { LANGUAGE_NAMES, TONE_NAMES } from "../forms/reminder-styles";
import { useTray } from "../frame/tray-data";
import { ACTION_WORDS, type FieldsProps } from "./action-words";
import { NumberField } from "./chosen-ones";
import { useNamesHere } from "./named-here";

/** To which group something is assigned in turn. */
export function TurnFields({ action, onChange }: FieldsProps<"assign-in-turn">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { tray, groups } = useTray();
  return (
    <>
      <span>{say(ACTION_WORDS["assign-in-turn"])}</span>
      {groups.length === 0 ? (
        <Link to={`/${tray.slug}/members`} className="text-act underline underline-offset-2">
          {say("rules.makeAGroupFirst")}
        </Link>
      ) : (
        <Select
          label={say("rules.group")}
          value={action.groupId}
          choices={groups.map(({ id, name }) => [id, name] as const)}
          onChoose={(id) => onChange({ ...action, groupId: trustedId(id) })}
        />
      )}
    </>
  );
}

/** Whose it becomes, by whose such matters were before. */
export function AsBeforeFields({ action, onChange }: FieldsProps<"assign-as-before">) {
  const say = useSay(rulesTexts, actionsTexts);
  const bys = ["person", "record"] as const;
  return (
    <>
      <span>{say(ACTION_WORDS["assign-as-before"])}</span>
      <Select
        label={say(ACTION_WORDS["assign-as-before"])}
        value={action.by}
        choices={bys.map((by) => [by, say("rules.asBefore", { by })] as const)}
        onChoose={(by) => onChange({ ...action, by: by === "record" ? by : "person" })}
      />
    </>
  );
}

function HowOften({ days, onDays }: { days: number | null; onDays: (days: number | null) => void }) {
  const say = useSay(rulesTexts);
  return (
    <>
      <Select
        label={say("rules.howOften")}
        value={days === null ? "each" : "once"}
        choices={[
          ["once", say("rules.everySoManyDays")],
          ["each", say("rules.eachTime")],
        ]}
        onChoose={(how) => onDays(how === "each" ? null : 7)}
      />
      {days !== null && (
        <NumberField
          label={say("rules.days")}
          value={days}
          unit={say("rules.days")}
          onNumber={(number) => onDays(Math.round(number))}
        />
      )}
    </>
  );
}

/** With which template it is answered by itself, and how often to the same person. */
export function AnswerWithFields({ action, onChange }: FieldsProps<"answer-with">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { tray } = useTray();
  const { templates } = useNamesHere();
  if (templates.length === 0) {
    return (
      <>
        <span>{say(ACTION_WORDS["answer-with"])}</span>
        <Link to={`/${tray.slug}/templates`} className="text-act underline underline-offset-2">
          {say("rules.writeATemplateFirst")}
        </Link>
      </>
    );
  }
  return (
    <>
      <span>{say(ACTION_WORDS["answer-with"])}</span>
      <Select
        label={say("rules.template")}
        value={action.templateId}
        choices={templates.map(({ id, name }) => [id, name] as const)}
        onChoose={(id) => onChange({ ...action, templateId: trustedId(id) })}
      />
      <HowOften days={action.days} onDays={(days) => onChange({ ...action, days })} />
    </>
  );
}

/** What is answered by itself, and how often to the same person. */
export function AnswerFields({ action, onChange }: FieldsProps<"answer">) {
  const say = useSay(rulesTexts, actionsTexts);
  return (
    <>
      <span>{say(ACTION_WORDS.answer)}</span>
      <HowOften days={action.days} onDays={(days) => onChange({ ...action, days })} />
      <textarea
        aria-label={say("rules.text")}
        value={action.text}
        placeholder={say("rules.whatItSays")}
        rows={3}
        onChange={(event) => onChange({ ...action, text: event.target.value })}
        className="w-full rounded-control border border-rule bg-paper px-2 py-1 placeholder:text-soft"
      />
    </>
  );
}

/** To whom outside it is sent on. */
export function WithAddress({ action, onChange }: FieldsProps<"forward" | "redirect">) {
  const say = useSay(rulesTexts, actionsTexts);
  return (
    <>
      <span>{say(ACTION_WORDS[action.kind])}</span>
      <input
        aria-label={say("rules.toAddress")}
        type="email"
        value={action.to}
        autoComplete="off"
        onChange={(event) => onChange({ ...action, to: event.target.value.trim() as EmailAddress })}
        className="h-8 w-64 rounded-control border border-rule bg-paper px-2 placeholder:text-soft"
      />
    </>
  );
}

/** How whoever is awaited is reminded. */
export function RemindFields({ action, onChange }: FieldsProps<"remind">) {
  const say = useSay(actionsTexts, waitingTexts);
  return (
    <>
      <span>{say(ACTION_WORDS.remind)}</span>
      <Select
        label={say("actions.tone")}
        value={action.tone}
        choices={TONES.map((tone) => [tone, say(TONE_NAMES[tone])] as const)}
        onChoose={(tone) => onChange({ ...action, tone: tone === "firm" ? tone : "friendly" })}
      />
      <Select
        label={say("actions.language")}
        value={action.language}
        choices={REMINDER_LANGUAGES.map((one) => [one, say(LANGUAGE_NAMES[one])] as const)}
        onChoose={(id) => onChange({ ...action, language: REMINDER_LANGUAGES.find((one) => one === id) ?? "en" })}
      />
    </>
  );
}
