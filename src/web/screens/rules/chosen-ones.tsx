import { Check, ChevronDown } from "lucide-react";
import type { TestOf } from "../../../core/rules/condition";
import { rulesTexts } from "../../../texts/en/rules";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";

type ChosenOnesProps = {
  readonly label: string;
  readonly choices: readonly (readonly [value: string, words: string])[];
  readonly chosen: readonly string[];
  readonly onChosen: (chosen: readonly string[]) => void;
  readonly problem?: boolean;
};

/** Some of a few, out of a list that drops down and stays open; they are read as alternatives. */
export function ChosenOnes({ label, choices, chosen, onChosen, problem = false }: ChosenOnesProps) {
  const say = useSay(rulesTexts);
  const names = choices.filter(([value]) => chosen.includes(value)).map(([, words]) => words);
  const trigger = {
    "aria-label": label,
    className: `inline-flex h-8 max-w-full items-center gap-2 rounded-control border bg-paper px-2.5 hover:border-act ${problem ? "border-late" : "border-rule"}`,
    children: (
      <>
        <span className="truncate">
          {names.length === 0 ? say("rules.choose") : say("rules.oneOf", { all: { all: names, by: "or" } })}
        </span>
        <ChevronDown size={13} aria-hidden className="shrink-0 text-soft" />
      </>
    ),
  };
  return (
    <MenuTrigger
      {...trigger}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger {...trigger} />
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={`${MENU} max-h-72 overflow-y-auto`} align="start">
              {choices.map(([value, words]) => (
                <DropdownMenu.CheckboxItem
                  key={value}
                  className={`${MENU_ITEM} justify-between gap-6`}
                  checked={chosen.includes(value)}
                  onSelect={(event) => event.preventDefault()}
                  onCheckedChange={(isOn) =>
                    onChosen(isOn ? [...chosen, value] : chosen.filter((other) => other !== value))
                  }
                >
                  {words}
                  <DropdownMenu.ItemIndicator>
                    <Check size={14} aria-hidden />
                  </DropdownMenu.ItemIndicator>
                </DropdownMenu.CheckboxItem>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}

type NumberFieldProps = {
  readonly label: string;
  readonly value: number;
  readonly unit: string;
  readonly onNumber: (value: number) => void;
  readonly problem?: boolean;
};

/** A number with what it counts. */
export function NumberField({ label, value, unit, onNumber, problem = false }: NumberFieldProps) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <input
        type="number"
        inputMode="decimal"
        min={0}
        step="any"
        aria-label={label}
        aria-invalid={problem}
        value={Number.isFinite(value) ? value : ""}
        onChange={(event) => onNumber(event.target.valueAsNumber || 0)}
        className="h-8 w-20 rounded-control border border-rule bg-paper px-2 tabular-nums aria-invalid:border-late"
      />
      {unit}
    </span>
  );
}

/** A size in megabytes as a test. */
export function sized(isOver: boolean, megabytes: number): TestOf<"size"> {
  const bytes = Math.round(megabytes * 1_000_000);
  return isOver ? { kind: "size", over: bytes } : { kind: "size", under: bytes };
}
