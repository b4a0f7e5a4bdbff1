import { type ReactNode, useRef, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { DayField } from "../forms/day-field";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

type AwayFormProps = {
  readonly trays: readonly {
    readonly id: string;
    readonly name: string;
    readonly members: readonly { readonly id: string; readonly name: string }[];
  }[];
};

/** Plans a time off: from when to when, and who covers each tray or a record of this one. */
export function AwayForm({ trays }: AwayFormProps) {
  const say = useSay(peopleTexts, commonTexts);
  const { member, members, mayLead } = useTray();
  const [who, setWho] = useState<string>(member.id);
  // Counts what was planned: the days of the next begin empty.
  const [planned, setPlanned] = useState(0);
  const [covers, setCovers] = useState<Readonly<Record<string, string>>>({});
  const form = useRef<HTMLFormElement>(null);
  const { Form, action, problems, refused, isBusy } = useFormAction("away", () => {
    form.current?.reset();
    setPlanned((before) => before + 1);
    setCovers({});
  });
  const choose = (name: string) => (id: string) => setCovers((others) => ({ ...others, [name]: id }));
  const others = (list: AwayFormProps["trays"][number]["members"]) => list.filter(({ id }) => id !== who);
  const theirs = trays.filter((tray) => tray.members.some(({ id }) => id === who) || who === member.id);
  const [here] = theirs;
  return (
    <Form
      ref={form}
      method="post"
      action={action}
      noValidate
      aria-label={say("people.planATimeOff")}
      className="space-y-3"
    >
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("people.planATimeOff")}</h2>
      <input type="hidden" name="do" value="plan" />
      {mayLead && (
        <Row label={say("people.whose")}>
          <input type="hidden" name="member" value={who} />
          <Select
            label={say("people.whoseTimeOff")}
            value={who}
            choices={members.map(({ id, name }) => [id, id === member.id ? say("common.nameYou", { name }) : name])}
            onChoose={(id) => {
              setWho(id);
              setCovers({});
            }}
          />
        </Row>
      )}
      <div key={planned} className="grid gap-3 sm:grid-cols-2">
        <DayField label={say("people.firstDay")} name="from" problem={problems.from} />
        <DayField label={say("people.lastDay")} name="to" problem={problems.to} />
      </div>
      {theirs.map((tray) => (
        <Row key={tray.id} label={say("people.isCoveredBy", { name: tray.name })}>
          <input type="hidden" name={`cover-${tray.id}`} value={covers[tray.id] ?? ""} />
          <Select
            label={say("people.whoCovers", { name: tray.name })}
            value={covers[tray.id] ?? ""}
            choices={[
              ["", say("common.nobodyInside")],
              ...others(tray.members).map(({ id, name }) => [id, name] as const),
            ]}
            onChoose={choose(tray.id)}
          />
        </Row>
      ))}
      {here !== undefined && (
        <div className="grid grid-cols-2 items-end gap-3">
          <Field
            label={say("people.onlyForTheRecord")}
            name="record"
            placeholder="P-26-012"
            problem={problems.record}
            autoComplete="off"
          />
          <div>
            <input type="hidden" name="record-cover" value={covers.record ?? ""} />
            <Select
              label={say("people.whoCoversTheRecord")}
              value={covers.record ?? ""}
              choices={[
                ["", say("people.coveredByNobodyElse")],
                ...others(here.members).map(({ id, name }) => [id, name] as const),
              ]}
              onChoose={choose("record")}
            />
            {problems["record-cover"] !== undefined && (
              <p className="mt-1 text-sm text-late">{problems["record-cover"]}</p>
            )}
          </div>
        </div>
      )}
      {refused?.problem != null && (
        <p role="alert" className="text-late">
          {refused.problem}
        </p>
      )}
      <Button look="filled" type="submit" disabled={isBusy}>
        {say("people.planIt")}
      </Button>
    </Form>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span className="w-56 shrink-0 text-sm font-semibold">{label}</span>
      {children}
    </div>
  );
}
