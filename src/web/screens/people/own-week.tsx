import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import type { AwayOutcome } from "./away-outcome";
import { type Open, WeekFields } from "./week-fields";

type Week = readonly Open[];

/** A member's own working days and hours, or the tray's. */
export function OwnWeek({ week, trayWeek }: { week: Week | null; trayWeek: Week }) {
  const say = useSay(peopleTexts);
  const { Form, data, state } = useFetcher<AwayOutcome>();
  const [isOwn, setOwn] = useState(week !== null);
  useEffect(() => {
    if (state === "idle" && data?.ok === true) notice(say("people.yourHoursAreSaved"));
  }, [state, data, say]);
  return (
    <Form method="post" noValidate aria-label={say("people.myHours")}>
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("people.myHours")}</h2>
      <input type="hidden" name="do" value="week" />
      <label className="mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          name="own"
          checked={isOwn}
          onChange={(event) => setOwn(event.target.checked)}
          className="size-4 accent-act"
        />
        {say("people.otherThanTheTrays")}
      </label>
      {isOwn && <WeekFields week={week ?? trayWeek} problems={data?.ok === false ? data.problems : {}} />}
      <Button type="submit" className="mt-3" disabled={state !== "idle"}>
        {say("people.saveMyHours")}
      </Button>
    </Form>
  );
}
