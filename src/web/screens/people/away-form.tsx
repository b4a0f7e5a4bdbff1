import { type ReactNode, useEffect, useRef, useState } from "react";
import { useFetcher } from "react-router";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import { Select } from "../../ui/select";
import { DayField } from "../frame/day-field";
import { useTray } from "../frame/tray-data";
import type { AwayOutcome } from "./away-outcome";

type AwayFormProps = {
  readonly trays: readonly {
    readonly id: string;
    readonly name: string;
    readonly members: readonly { readonly id: string; readonly name: string }[];
  }[];
};

/** Plans a time off: from when to when, and who covers each tray or a record of this one. */
export function AwayForm({ trays }: AwayFormProps) {
  const { member, members, mayLead } = useTray();
  const { Form, data, state } = useFetcher<AwayOutcome>();
  const [who, setWho] = useState<string>(member.id);
  // Counts what was planned: the days of the next begin empty.
  const [planned, setPlanned] = useState(0);
  const [covers, setCovers] = useState<Readonly<Record<string, string>>>({});
  const form = useRef<HTMLFormElement>(null);
  const problems = data?.ok === false ? data.problems : {};
  useEffect(() => {
    if (state !== "idle" || data?.ok !== true) return;
    notice("Time off planned");
    form.current?.reset();
    setPlanned((before) => before + 1);
    setCovers({});
  }, [state, data]);
  const choose = (name: string) => (id: string) => setCovers((others) => ({ ...others, [name]: id }));
  const others = (list: AwayFormProps["trays"][number]["members"]) => list.filter(({ id }) => id !== who);
  const theirs = trays.filter((tray) => tray.members.some(({ id }) => id === who) || who === member.id);
  const [here] = theirs;
  return (
    <Form ref={form} method="post" noValidate aria-label="Plan a time off" className="space-y-3">
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">Plan a time off</h2>
      <input type="hidden" name="do" value="plan" />
      {mayLead && (
        <Row label="Whose">
          <input type="hidden" name="member" value={who} />
          <Select
            label="Whose time off"
            value={who}
            choices={members.map(({ id, name }) => [id, id === member.id ? `${name} (you)` : name])}
            onChoose={(id) => {
              setWho(id);
              setCovers({});
            }}
          />
        </Row>
      )}
      <div key={planned} className="grid gap-3 sm:grid-cols-2">
        <DayField label="First day" name="from" problem={problems.from} />
        <DayField label="Last day" name="to" problem={problems.to} />
      </div>
      {theirs.map((tray) => (
        <Row key={tray.id} label={`${tray.name} is covered by`}>
          <input type="hidden" name={`cover-${tray.id}`} value={covers[tray.id] ?? ""} />
          <Select
            label={`Who covers ${tray.name}`}
            value={covers[tray.id] ?? ""}
            choices={[["", "nobody"], ...others(tray.members).map(({ id, name }) => [id, name] as const)]}
            onChoose={choose(tray.id)}
          />
        </Row>
      ))}
      {here !== undefined && (
        <div className="grid grid-cols-2 items-end gap-3">
          <Field
            label="Only for the record"
            name="record"
            placeholder="P-26-012"
            problem={problems.record}
            autoComplete="off"
          />
          <div>
            <input type="hidden" name="record-cover" value={covers.record ?? ""} />
            <Select
              label="Who covers the record"
              value={covers.record ?? ""}
              choices={[
                ["", "covered by nobody else"],
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
      {data?.ok === false && data.problem !== null && (
        <p role="alert" className="text-late">
          {data.problem}
        </p>
      )}
      <Button look="filled" type="submit" disabled={state !== "idle"}>
        Plan it
      </Button>
    </Form>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span className="min-w-52 text-sm font-semibold">{label}</span>
      {children}
    </div>
  );
}
