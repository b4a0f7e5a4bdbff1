import { X } from "lucide-react";
import { useState } from "react";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";

type ValuesFieldProps = {
  readonly label: string;
  readonly values: readonly string[];
  readonly placeholder: string;
  readonly onValues: (values: readonly string[]) => void;
  /** What ends a value besides Enter, for values that cannot have it in them. */
  readonly endsAt?: RegExp;
  readonly problem?: boolean;
};

/** Several values of which any will do: each is typed and ended with Enter, and can be removed. */
export function ValuesField({ label, values, placeholder, onValues, endsAt, problem = false }: ValuesFieldProps) {
  const say = useSay(rulesTexts);
  const [typed, setTyped] = useState("");
  const add = (text: string) => {
    const written = (endsAt === undefined ? [text] : text.split(endsAt)).map((one) => one.trim());
    const fresh = written.filter((one) => one !== "" && !values.includes(one));
    setTyped("");
    if (fresh.length > 0) onValues([...values, ...fresh]);
  };
  return (
    <span
      className={`inline-flex min-h-8 min-w-40 flex-1 flex-wrap items-center gap-1 rounded-control border bg-paper px-1 py-0.5 focus-within:outline-2 focus-within:outline-act ${problem ? "border-late" : "border-rule"}`}
    >
      {values.map((value) => (
        <span key={value} className="inline-flex max-w-full items-center gap-0.5 rounded-[3px] bg-sunk ps-1.5">
          <span dir="auto" className="truncate">
            {value}
          </span>
          <button
            type="button"
            aria-label={say("rules.removeValue", { value })}
            onClick={() => onValues(values.filter((one) => one !== value))}
            className="grid size-6 place-items-center text-soft hover:text-ink"
          >
            <X size={12} aria-hidden />
          </button>
        </span>
      ))}
      <input
        aria-label={label}
        aria-invalid={problem}
        dir="auto"
        value={typed}
        placeholder={values.length === 0 ? placeholder : say("rules.orAnother")}
        autoComplete="off"
        onChange={(event) => {
          const text = event.target.value;
          if (endsAt?.test(text.slice(-1))) add(text);
          else setTyped(text);
        }}
        onPaste={(event) => {
          const text = event.clipboardData.getData("text");
          if (!/[\n,;]/.test(text)) return;
          event.preventDefault();
          add(text.replace(/[\n,;]+/g, endsAt === undefined ? " " : ","));
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") {
            event.preventDefault();
            add(typed);
          }
          if (event.key === "Backspace" && typed === "" && values.length > 0) onValues(values.slice(0, -1));
        }}
        onBlur={() => add(typed)}
        className="h-6 min-w-24 flex-1 bg-transparent px-1 outline-none placeholder:text-soft"
      />
    </span>
  );
}
