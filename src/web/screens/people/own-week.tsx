import { useState } from "react";
import { peopleTexts } from "../../../texts/en/people";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { SettingsForm } from "../forms/settings-form";
import { useFormAction } from "../forms/use-form-action";
import { type Open, WeekFields } from "./week-fields";

type Week = readonly Open[];

/** A member's own working days and hours, or the tray's. */
export function OwnWeek({ week, trayWeek }: { week: Week | null; trayWeek: Week }) {
  const say = useSay(peopleTexts);
  const step = useFormAction("away");
  const [isOwn, setOwn] = useState(week !== null);
  return (
    <SettingsForm step={step} name={say("people.myHours")} does="week" submits={say("people.saveMyHours")} isSecond>
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("people.myHours")}</h2>
      <Tick name="own" checked={isOwn} onTick={setOwn} className="mt-2">
        {say("people.otherThanTheTrays")}
      </Tick>
      {isOwn && <WeekFields week={week ?? trayWeek} problems={step.problems} />}
    </SettingsForm>
  );
}
