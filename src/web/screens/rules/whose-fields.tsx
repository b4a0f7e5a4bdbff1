import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useTray } from "../frame/tray-data";
import type { WrittenRule } from "../rule-trial/written-rule";

type Whose = Pick<WrittenRule, "isOwn" | "isEverywhere">;

type WhoseFieldsProps = {
  readonly whose: Whose;
  /** Whose a rule is stays as it was once it is kept. */
  readonly isNew: boolean;
  readonly problem: string | undefined;
  readonly onChange: (changed: Partial<Whose>) => void;
};

/** Whose a rule is, and whether it is asked in all trays. */
export function WhoseFields({ whose, isNew, problem, onChange }: WhoseFieldsProps) {
  const say = useSay(rulesTexts);
  const { mayLead } = useTray();
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {isNew && mayLead && (
          <span className="flex items-center gap-2">
            <span aria-hidden className="font-semibold">
              {say("rules.whoseItIs")}
            </span>
            <Select
              label={say("rules.whoseItIs")}
              value={whose.isOwn ? "own" : "tray"}
              choices={[
                ["tray", say("rules.forTheTray")],
                ["own", say("rules.forMeOnly")],
              ]}
              onChoose={(whom) => onChange({ isOwn: whom === "own" })}
            />
          </span>
        )}
        <Tick
          checked={whose.isEverywhere}
          aria-invalid={problem !== undefined}
          onTick={(isOn) => onChange({ isEverywhere: isOn })}
        >
          {say("rules.inAllTrays")}
        </Tick>
      </div>
      {whose.isOwn && <p className="mt-1 text-sm text-soft">{say("rules.ownRulesAre")}</p>}
      {problem !== undefined && <p className="mt-1 text-sm text-late">{problem}</p>}
    </div>
  );
}
