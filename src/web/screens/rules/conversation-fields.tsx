import { type CategoryId, type MemberId, type RecordId, type TemplateId, trustedId } from "../../../core/kernel/ids";
import { URGENCIES, URGENCY_NAMES, type Urgency } from "../../../core/kernel/urgency";
import { STANDING_NAMES, STANDINGS, type StandingKind } from "../../../core/standing/standing";
import { foldersOf } from "../../../core/templates/template";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { ChosenOnes, NumberField } from "./chosen-ones";
import type { FieldsProps } from "./fields-props";
import { useNamesHere } from "./named-here";
import { ValuesField } from "./values-field";

// The fields of conditions about records and about the conversation that a message is in.

type CodesProps = {
  readonly label: string;
  readonly placeholder: string;
  readonly of: readonly string[];
  readonly hasProblem: boolean;
  readonly onCodes: (codes: readonly string[]) => void;
};

function Codes({ label, placeholder, of, hasProblem, onCodes }: CodesProps) {
  return (
    <ValuesField
      label={label}
      values={of}
      placeholder={placeholder}
      endsAt={/[,\s]/}
      problem={hasProblem}
      onValues={(codes) => onCodes(codes.map((code) => code.toUpperCase()))}
    />
  );
}

export function ReferenceFields({ test, hasProblem, onChange }: FieldsProps<"reference">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say("rules.kindReference")}</span>
      <Codes
        label={say("rules.codes")}
        placeholder={say("rules.ofAnyRecord")}
        of={test.of}
        hasProblem={hasProblem}
        onCodes={(codes) => onChange({ ...test, of: codes.map((code) => trustedId<RecordId>(code)) })}
      />
    </>
  );
}

export function RecordFields({ test, hasProblem, onChange }: FieldsProps<"record">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say("rules.kindRecord")}</span>
      <Codes
        label={say("rules.codes")}
        placeholder="P-26-012"
        of={test.of}
        hasProblem={hasProblem}
        onCodes={(codes) => onChange({ ...test, of: codes.map((code) => trustedId<RecordId>(code)) })}
      />
    </>
  );
}

export function StandingFields({ test, onChange }: FieldsProps<"standing">) {
  const say = useSay(rulesTexts);
  return (
    <ChosenOnes
      label={say("rules.kindStanding")}
      choices={STANDINGS.map((one) => [one, say(STANDING_NAMES[one])] as const)}
      chosen={test.of}
      onChosen={(of) => onChange({ ...test, of: of as StandingKind[] })}
    />
  );
}

export function OwnerFields({ test, onChange }: FieldsProps<"owner">) {
  const say = useSay(rulesTexts);
  const { members } = useTray();
  return (
    <>
      <span>{say("rules.kindOwner")}</span>
      <ChosenOnes
        label={say("rules.kindOwner")}
        choices={[["", say("rules.nobody")], ...members.map(({ id, name }) => [id, name] as const)]}
        chosen={test.of.map((id) => id ?? "")}
        onChosen={(of) => onChange({ ...test, of: of.map((id) => (id === "" ? null : trustedId<MemberId>(id))) })}
      />
    </>
  );
}

export function CategoryFields({ test, hasProblem, onChange }: FieldsProps<"category">) {
  const say = useSay(rulesTexts);
  const { categories } = useTray();
  return (
    <>
      <span>{say("rules.kindCategory")}</span>
      <ChosenOnes
        label={say("rules.kindCategory")}
        choices={categories.map(({ id, path }) => [id, path.join(" › ")] as const)}
        chosen={test.of}
        problem={hasProblem}
        onChosen={(of) => onChange({ ...test, of: of.map((id) => trustedId<CategoryId>(id)) })}
      />
    </>
  );
}

export function TemplateFields({ test, hasProblem, onChange }: FieldsProps<"template">) {
  const say = useSay(rulesTexts);
  const { templates } = useNamesHere();
  return (
    <>
      <span>{say("rules.kindTemplate")}</span>
      <ChosenOnes
        label={say("rules.kindTemplate")}
        choices={templates.map(({ id, name, folder }) => [id, [...foldersOf(folder), name].join(" › ")] as const)}
        chosen={test.of}
        problem={hasProblem}
        onChosen={(of) => onChange({ ...test, of: of.map((id) => trustedId<TemplateId>(id)) })}
      />
    </>
  );
}

export function UrgencyFields({ test, onChange }: FieldsProps<"urgency">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say("rules.kindUrgency")}</span>
      <ChosenOnes
        label={say("rules.kindUrgency")}
        choices={URGENCIES.map((one) => [one, say(URGENCY_NAMES[one])] as const)}
        chosen={test.of}
        onChosen={(of) => onChange({ ...test, of: of as Urgency[] })}
      />
    </>
  );
}

const OF_AGE = { age: "rules.kindAge", "standing-for": "rules.kindStandingFor", due: "rules.kindDue" } as const;

export function AgeFields({ test, hasProblem, onChange }: FieldsProps<keyof typeof OF_AGE>) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say(OF_AGE[test.kind])}</span>
      <NumberField
        label={say("rules.workingHours")}
        value={test.hours}
        unit={say("rules.workingHours")}
        problem={hasProblem}
        onNumber={(hours) => onChange({ ...test, hours })}
      />
    </>
  );
}
