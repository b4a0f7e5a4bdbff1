import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

const ROLES = [
  ["member", "records.everyMemberWhoHasNone"],
  ["reader", "records.everyReaderWhoHasNone"],
] as const;

/** Hands one's own tree out: as what those of a role begin with, or to some colleagues. */
export function AssignTree({ isEmpty }: { readonly isEmpty: boolean }) {
  const say = useSay(recordsTexts, commonTexts);
  const { members, member } = useTray();
  const [to, setTo] = useState("member");
  const { Form, action, refused, isBusy } = useFormAction("arrangement");
  const others = members.filter(({ id }) => id !== member.id);
  return (
    <section aria-label={say("records.handOutArrangement")} className="max-lg:mt-6">
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("records.handOutArrangement")}</h2>
      <Form method="post" action={action} noValidate className="space-y-2 pt-2 text-sm">
        <input type="hidden" name="do" value="hand-out" />
        <fieldset className="space-y-1">
          <legend className="pb-1 text-soft">{say("records.aCopyOfThisTree")}</legend>
          {ROLES.map(([role, words]) => (
            <label key={role} className="flex min-h-6 cursor-pointer items-start gap-2">
              <input
                type="radio"
                name="role"
                value={role}
                checked={to === role}
                onChange={() => setTo(role)}
                className="mt-0.5 size-4 accent-act"
              />
              {say(words)}
            </label>
          ))}
          <label className="flex min-h-6 cursor-pointer items-start gap-2">
            <input
              type="radio"
              name="role"
              value=""
              checked={to === ""}
              onChange={() => setTo("")}
              className="mt-0.5 size-4 accent-act"
            />
            {say("records.theseColleaguesBesideWhatThey")}
          </label>
        </fieldset>
        {to === "" && (
          <fieldset className="max-h-48 overflow-y-auto border-y border-hair py-1">
            <legend className="sr-only">{say("common.colleagues")}</legend>
            {others.map(({ id, name }) => (
              <Tick key={id} name="members" value={id}>
                {name}
              </Tick>
            ))}
          </fieldset>
        )}
        {refused?.problem != null && (
          <p role="alert" className="text-late">
            {refused.problem}
          </p>
        )}
        <Button type="submit" disabled={isBusy || isEmpty}>
          {say("records.handOutArrangement")}
        </Button>
      </Form>
    </section>
  );
}
