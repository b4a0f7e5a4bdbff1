import type { ReactElement } from "react";
import { MESSAGE_KINDS } from "../../../core/message/mail-message";
import { ADDRESS_PARTS, REACHES, type Test, type TestKind, type TestOf } from "../../../core/rules/condition";
import { testInWords } from "../../../core/rules/condition-in-words";
import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { DayField } from "../forms/day-field";
import { AddressFields } from "./address-fields";
import { ChosenOnes, NumberField, sized } from "./chosen-ones";
import {
  AgeFields,
  CategoryFields,
  OwnerFields,
  RecordFields,
  ReferenceFields,
  StandingFields,
  TemplateFields,
  UrgencyFields,
} from "./conversation-fields";
import type { FieldsProps } from "./fields-props";
import { MatchFields } from "./match-fields";
import { useRuleNames } from "./use-rule-names";
import { ValuesField } from "./values-field";

type AnyProps = {
  readonly test: Test;
  readonly hasProblem: boolean;
  readonly onChange: (test: Test) => void;
};

/** The fields of one condition, as a sentence that is filled in. */
export function TestFields(props: AnyProps) {
  // The table's type ties each test to its fields; an index by a union loses that tie.
  const Fields = FIELDS[props.test.kind] as (props: AnyProps) => ReactElement;
  return <Fields {...props} />;
}

const FIELDS: { readonly [Kind in TestKind]: (props: FieldsProps<Kind>) => ReactElement } = {
  every: OnlyInWords,
  address: AddressFields,
  text: TextFields,
  list: ListFields,
  attachment: AttachmentFields,
  size: SizeFields,
  header: HeaderFields,
  "address-part": AddressPartFields,
  reach: ReachFields,
  "message-kind": KindFields,
  opening: OpeningFields,
  verified: VerifiedFields,
  open: OpenFields,
  weekday: WeekdayFields,
  days: DaysFields,
  "date-part": OnlyInWords,
  reference: ReferenceFields,
  template: TemplateFields,
  standing: StandingFields,
  owner: OwnerFields,
  "owner-away": OnlyInWords,
  category: CategoryFields,
  record: RecordFields,
  urgency: UrgencyFields,
  age: AgeFields,
  "standing-for": AgeFields,
  due: AgeFields,
};

function OnlyInWords({ test }: FieldsProps) {
  const say = useSay(rulesTexts);
  return <span className="py-1.5">{say(testInWords(test, useRuleNames()))}</span>;
}

function TextFields({ test, hasProblem, onChange }: FieldsProps<"text">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <Select
        label={say("rules.where")}
        value={test.where}
        choices={[
          ["subject", say("rules.inTheSubject")],
          ["text", say("rules.inTheText")],
          ["body", say("rules.inAllOfTheText")],
          ["parts", say("rules.inAnyOfItsTexts")],
          ["file", say("rules.inAFileName")],
        ]}
        onChoose={(where) => onChange({ ...test, where: where as TestOf<"text">["where"] })}
      />
      <MatchFields match={test.match} hasProblem={hasProblem} onChange={(match) => onChange({ ...test, match })} />
    </>
  );
}

function ListFields({ test, hasProblem, onChange }: FieldsProps<"list">) {
  const say = useSay(rulesTexts);
  return (
    <>
      <span>{say("rules.kindList")}</span>
      <ValuesField
        label={say("rules.listId")}
        values={test.of}
        placeholder={say("rules.listIdLike")}
        endsAt={/[,\s]/}
        problem={hasProblem}
        onValues={(of) => onChange({ ...test, of: of.map((one) => one.toLowerCase()) })}
      />
    </>
  );
}

function AttachmentFields({ test, hasProblem, onChange }: FieldsProps<"attachment">) {
  const say = useSay(rulesTexts);
  const { types = [], name, ...rest } = test;
  const values = name?.values ?? [];
  return (
    <>
      <span>{say("rules.withAnAttachment")}</span>
      <ValuesField
        label={say("rules.fileNameLike")}
        values={values}
        placeholder={say("rules.anyName")}
        problem={hasProblem}
        onValues={(named) => {
          const typed = types.length === 0 ? {} : { types };
          const how = name?.how ?? "like";
          onChange({ ...rest, ...typed, ...(named.length === 0 ? {} : { name: { how, values: named } }) });
        }}
      />
      <ValuesField
        label={say("rules.fileType")}
        values={types}
        placeholder={say("rules.anyType")}
        endsAt={/[,\s]/}
        onValues={(of) => {
          const { types: _, ...others } = test;
          onChange(of.length === 0 ? others : { ...others, types: of.map((one) => one.toLowerCase()) });
        }}
      />
    </>
  );
}

function SizeFields({ test, hasProblem, onChange }: FieldsProps<"size">) {
  const say = useSay(rulesTexts);
  const isOver = test.over !== undefined;
  return (
    <>
      <Select
        label={say("rules.kindSize")}
        value={isOver ? "over" : "under"}
        choices={[
          ["over", say("rules.largerThan")],
          ["under", say("rules.smallerThan")],
        ]}
        onChoose={(how) => onChange(sized(how === "over", (test.over ?? test.under ?? 0) / 1_000_000))}
      />
      <NumberField
        label={say("rules.megabytesLabel")}
        value={(test.over ?? test.under ?? 0) / 1_000_000}
        unit="MB"
        problem={hasProblem}
        onNumber={(megabytes) => onChange(sized(isOver, megabytes))}
      />
    </>
  );
}

function HeaderFields({ test, hasProblem, onChange }: FieldsProps<"header">) {
  const say = useSay(rulesTexts);
  const { match } = test;
  return (
    <>
      <span>{say("rules.theField")}</span>
      <ValuesField
        label={say("rules.fieldName")}
        values={test.names}
        placeholder={say("rules.fieldLike")}
        endsAt={/[,:\s]/}
        problem={hasProblem && test.names.length === 0}
        onValues={(names) => onChange({ ...test, names: names.map((one) => one.toLowerCase()) })}
      />
      {match.how === "value" || match.how === "count" || match.how === "exists" ? (
        <span>{say("rules.asImported")}</span>
      ) : (
        <MatchFields match={match} hasProblem={hasProblem} onChange={(other) => onChange({ ...test, match: other })} />
      )}
    </>
  );
}

function AddressPartFields({ test, hasProblem, onChange }: FieldsProps<"address-part">) {
  const say = useSay(rulesTexts);
  const { match } = test;
  return (
    <>
      <Select
        label={say("rules.partOfAddress")}
        value={test.part}
        choices={ADDRESS_PARTS.map((part) => [part, say("rules.addressPart", { part })] as const)}
        onChoose={(part) => onChange({ ...test, part: part as (typeof ADDRESS_PARTS)[number] })}
      />
      <span>{say("rules.inFields", { fields: test.names.join(", ") })}</span>
      {match.how === "value" || match.how === "count" || match.how === "exists" ? (
        <span>{say("rules.asImported")}</span>
      ) : (
        <MatchFields match={match} hasProblem={hasProblem} onChange={(other) => onChange({ ...test, match: other })} />
      )}
    </>
  );
}

function ReachFields({ test, onChange }: FieldsProps<"reach">) {
  const say = useSay(rulesTexts);
  const names = useRuleNames();
  return (
    <ChosenOnes
      label={say("rules.kindReach")}
      choices={REACHES.map((one) => [one, say(testInWords({ kind: "reach", of: [one] }, names))] as const)}
      chosen={test.of}
      onChosen={(of) => onChange({ ...test, of: REACHES.filter((one) => of.includes(one)) })}
    />
  );
}

function KindFields({ test, onChange }: FieldsProps<"message-kind">) {
  const say = useSay(rulesTexts);
  const names = useRuleNames();
  return (
    <ChosenOnes
      label={say("rules.kindMessageKind")}
      choices={MESSAGE_KINDS.map((one) => [one, say(testInWords({ kind: "message-kind", of: [one] }, names))] as const)}
      chosen={test.of}
      onChosen={(of) => onChange({ ...test, of: MESSAGE_KINDS.filter((one) => of.includes(one)) })}
    />
  );
}

type Either = {
  readonly label: string;
  readonly isYes: boolean;
  readonly yes: string;
  readonly no: string;
  readonly onEither: (isYes: boolean) => void;
};

function EitherField({ label, isYes, yes, no, onEither }: Either) {
  return (
    <Select
      label={label}
      value={isYes ? "yes" : "no"}
      choices={[
        ["yes", yes],
        ["no", no],
      ]}
      onChoose={(chosen) => onEither(chosen === "yes")}
    />
  );
}

function OpeningFields({ test, onChange }: FieldsProps<"opening">) {
  const say = useSay(rulesTexts);
  const words = { yes: say("rules.theFirst"), no: say("rules.anAnswer") };
  const put = (isFirst: boolean) => onChange({ ...test, isFirst });
  return <EitherField label={say("rules.kindOpening")} isYes={test.isFirst} {...words} onEither={put} />;
}

function VerifiedFields({ test, onChange }: FieldsProps<"verified">) {
  const say = useSay(rulesTexts);
  const words = { yes: say("rules.verifiedSender"), no: say("rules.unverifiedSender") };
  return (
    <EitherField
      label={say("rules.kindVerified")}
      isYes={test.is}
      {...words}
      onEither={(is) => onChange({ ...test, is })}
    />
  );
}

function OpenFields({ test, onChange }: FieldsProps<"open">) {
  const say = useSay(rulesTexts);
  const words = { yes: say("rules.withinHours"), no: say("rules.outsideHours") };
  return (
    <EitherField
      label={say("rules.kindOpen")}
      isYes={test.is}
      {...words}
      onEither={(is) => onChange({ ...test, is })}
    />
  );
}

function WeekdayFields({ test, onChange }: FieldsProps<"weekday">) {
  const say = useSay(rulesTexts);
  const days = [0, 1, 2, 3, 4, 5, 6];
  return (
    <>
      <span>{say("rules.itComesOn")}</span>
      <ChosenOnes
        label={say("rules.kindWeekday")}
        choices={days.map((day) => [String(day), say("rules.shortDay", { day: String(day) })] as const)}
        chosen={test.of.map(String)}
        onChosen={(of) => onChange({ ...test, of: days.filter((day) => of.includes(String(day))) })}
      />
    </>
  );
}

const isDay = (text: string) => /^\d{4}-\d\d-\d\d$/.test(text);

function DaysFields({ test, onChange }: FieldsProps<"days">) {
  const say = useSay(rulesTexts);
  const put = (side: "from" | "until", typed: string) => {
    const day = isDay(typed) ? typed : null;
    if (test[side] !== day) onChange({ ...test, [side]: day });
  };
  return (
    <span className="grid flex-1 grid-cols-2 gap-2">
      <DayField
        label={say("rules.fromTheDay")}
        start={test.from ?? ""}
        problem={undefined}
        onDay={(day) => put("from", day)}
      />
      <DayField
        label={say("rules.toTheDay")}
        start={test.until ?? ""}
        problem={undefined}
        onDay={(day) => put("until", day)}
      />
    </span>
  );
}
