import { useState } from "react";
import { Select } from "../../ui/select";

type ChoiceFieldProps = {
  readonly label: string;
  readonly name: string;
  readonly value: string;
  readonly choices: readonly (readonly [value: string, words: string])[];
};

/** One of a few as a field of a form. */
export function ChoiceField({ label, name, value, choices }: ChoiceFieldProps) {
  const [chosen, setChosen] = useState(value);
  return (
    <div>
      <span className="mb-1 block text-sm font-semibold">{label}</span>
      <input type="hidden" name={name} value={chosen} />
      <Select label={label} value={chosen} choices={choices} onChoose={setChosen} />
    </div>
  );
}
