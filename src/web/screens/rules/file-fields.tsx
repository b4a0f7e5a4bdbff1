import { Suspense, useState } from "react";
import { useFetcher } from "react-router";
import { trustedId } from "../../../core/kernel/ids";
import { type AskedFields, givenIn } from "../../../core/records/filing-field";
import { actionsTexts } from "../../../texts/en/actions";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";
import { FilingSheet } from "../deciding/lazy-filing-sheet";
import { useTray } from "../frame/tray-data";
import { ACTION_WORDS, type FieldsProps } from "./action-words";

type Answered = { readonly code: string; readonly asked: AskedFields | null };

/** On which record something is filed, and with which details that the record asks for. */
export function FileFields({ action, onChange }: FieldsProps<"file">) {
  const say = useSay(rulesTexts, actionsTexts);
  const { tray } = useTray();
  const { data, load, state } = useFetcher<Answered>();
  const [isAsked, setAsked] = useState(false);
  const { recordId: code } = action;
  const answered = isAsked && state === "idle" && data?.code === code ? data : null;
  const given = givenIn(action.fields);
  return (
    <>
      <span>{say(ACTION_WORDS.file)}</span>
      <input
        aria-label={say("rules.codeOfTheRecord")}
        value={code}
        placeholder="P-26-012"
        autoComplete="off"
        onChange={(event) => onChange({ kind: "file", recordId: trustedId(event.target.value.toUpperCase()) })}
        className="h-8 w-36 rounded-control border border-rule bg-paper px-2 placeholder:text-soft"
      />
      <button
        type="button"
        disabled={code === "" || state !== "idle"}
        onClick={() => {
          setAsked(true);
          void load(`/${tray.slug}/rules/details?code=${encodeURIComponent(code)}`);
        }}
        className="min-h-7 rounded-control px-1 text-act underline-offset-2 hover:underline disabled:text-soft disabled:no-underline"
      >
        {given.length === 0 ? say("actions.details") : say("actions.detailsOf", { given: { all: given, by: "comma" } })}
      </button>
      {answered !== null && (answered.asked?.fields ?? []).length === 0 && (
        <span role="status" className="text-sm text-soft">
          {answered.asked === null
            ? say("rules.thereIsNoRecord", { code })
            : say("actions.detailsAskedNothing", { code })}
        </span>
      )}
      {answered?.asked != null && answered.asked.fields.length > 0 && (
        <Suspense fallback={null}>
          <FilingSheet
            asked={withGiven(answered.asked, action.fields)}
            count={1}
            changes
            onFile={(values) => {
              setAsked(false);
              onChange({ ...action, fields: values });
            }}
            onClose={() => setAsked(false)}
          />
        </Suspense>
      )}
    </>
  );
}

function withGiven(asked: AskedFields, given: FieldsProps<"file">["action"]["fields"]): AskedFields {
  if (given === undefined) return asked;
  return { ...asked, fields: asked.fields.map((field) => ({ ...field, value: given[field.key] ?? "" })) };
}
