import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { ChoiceField } from "../forms/choice-field";
import { NoteField } from "../forms/note-field";
import type { RecordsOutcome } from "../forms/records-outcome";
import { SideForm } from "../forms/side-form";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** A record as it is edited. */
export type EditedRecord = {
  readonly code: string;
  readonly typeId: string;
  readonly title: string;
  readonly parentCode: string;
  readonly responsibleId: string | null;
  readonly addresses: readonly string[];
  readonly note: string;
  readonly access: { readonly memberIds: readonly string[]; readonly groupIds: readonly string[] } | null;
  readonly version: number;
};

/** A record that is not there yet, to stand under another where its code is given. */
export function blankRecord(parentCode: string): EditedRecord {
  const nothing = { code: "", typeId: "", title: "", responsibleId: null, addresses: [], note: "" };
  return { ...nothing, parentCode, access: null, version: 0 };
}

type RecordFormProps = {
  /** Without a code for a new one. */
  readonly record: EditedRecord;
  readonly types: readonly { readonly id: string; readonly name: string }[];
  readonly onKept: (code: string) => void;
  readonly onClose: () => void;
};

/** A new record, or what the register says of one. */
export function RecordForm({ record, types, onKept, onClose }: RecordFormProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { members } = useTray();
  const isNew = record.code === "";
  const page = isNew ? "records" : `records/${record.code}`;
  const step = useFormAction<RecordsOutcome>(page, ({ code }) => onKept(code));
  const problems = step.refused?.problems ?? {};
  return (
    <SideForm
      name={isNew ? say("records.newRecord") : say("records.changeOf", { code: record.code })}
      step={step}
      submits={isNew ? say("records.createRecord") : say("common.save")}
      onClose={onClose}
    >
      <input type="hidden" name="do" value="keep" />
      <input type="hidden" name="version" value={record.version} />
      <Field
        label={say("records.title")}
        name="title"
        defaultValue={record.title}
        problem={problems.title}
        autoFocus
        autoComplete="off"
      />
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        {isNew ? (
          <ChoiceField
            label={say("records.type")}
            name="type"
            value={types[0]?.id ?? ""}
            choices={types.map(({ id, name }) => [id, name] as const)}
          />
        ) : (
          <input type="hidden" name="type" value={record.typeId} />
        )}
        <ChoiceField
          label={say("records.responsible")}
          name="responsible"
          value={record.responsibleId ?? ""}
          choices={[["", say("common.nobodyYet")], ...members.map(({ id, name }) => [id, name] as const)]}
        />
      </div>
      <Field
        label={say("common.parent")}
        name="parent"
        defaultValue={record.parentCode}
        placeholder={say("records.theCodeOfAClient")}
        problem={problems.parentId}
        autoComplete="off"
      />
      <Field
        label={say("records.peopleAndTheirAddresses")}
        name="addresses"
        defaultValue={record.addresses.join(", ")}
        placeholder={say("records.whoseMailIsLikelyTo")}
        problem={problems.addresses}
        autoComplete="off"
      />
      <NoteField note={record.note} rows={2} problem={problems.note} />
      <AccessChoice access={record.access} problem={problems.access} />
    </SideForm>
  );
}

type AccessChoiceProps = { readonly access: EditedRecord["access"]; readonly problem: string | undefined };

function AccessChoice({ access, problem }: AccessChoiceProps) {
  const say = useSay(recordsTexts);
  const { member, members, groups } = useTray();
  const [isNarrow, setNarrow] = useState(access !== null);
  const chosen = access ?? { memberIds: [member.id], groupIds: [] };
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{say("records.access")}</legend>
      <div className="flex flex-wrap gap-x-5">
        {(["all", "some"] as const).map((who) => (
          <label key={who} className="flex min-h-6 cursor-pointer items-center gap-2">
            <input
              type="radio"
              name="access"
              value={who}
              checked={isNarrow === (who === "some")}
              onChange={() => setNarrow(who === "some")}
              className="size-4 accent-act"
            />
            {who === "all" ? say("records.asItsParentRecord") : say("records.onlyThesePeople")}
          </label>
        ))}
      </div>
      {isNarrow && (
        <div className="mt-1.5 grid gap-x-4 rounded-control border border-hair px-3 py-1.5 sm:grid-cols-2">
          {members.map(({ id, name }) => (
            <Tick key={id} name="members" value={id} defaultChecked={chosen.memberIds.includes(id)}>
              {name}
            </Tick>
          ))}
          {groups.map(({ id, name }) => (
            <Tick key={id} name="groups" value={id} defaultChecked={chosen.groupIds.includes(id)}>
              {say("records.allOf", { name })}
            </Tick>
          ))}
        </div>
      )}
      {problem !== undefined && <p className="mt-1 text-sm text-late">{problem}</p>}
    </fieldset>
  );
}
