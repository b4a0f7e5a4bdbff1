import { useState } from "react";
import { categoriesTexts } from "../../../texts/en/categories";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useTray } from "../frame/tray-data";

/** Some of the categories as a field of a form (`categories`): those that are offered, and what was chosen before. */
export function CategoryChoice({ label, chosen }: { label: string; chosen: readonly string[] }) {
  const say = useSay(categoriesTexts);
  const { categories } = useTray();
  const [text, setText] = useState("");
  const [given, setGiven] = useState<readonly string[]>(chosen);
  const typed = text.trim().toLowerCase();
  const offered = categories.filter(
    ({ id, retired, path }) =>
      given.includes(id) || (!retired && typed !== "" && path.join(" ").toLowerCase().includes(typed)),
  );
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      {given.map((id) => (
        <input key={id} type="hidden" name="categories" value={id} />
      ))}
      <input
        aria-label={say("categories.findACategory", { label })}
        placeholder={say("categories.typeACategory")}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && event.preventDefault()}
        className="h-9 w-full rounded-control border border-rule bg-paper px-2.5"
      />
      <div className="mt-1 max-h-32 overflow-y-auto">
        {offered.map(({ id, path, retired }) => (
          <Tick
            key={id}
            checked={given.includes(id)}
            onTick={(isOn) => setGiven(isOn ? [...given, id] : given.filter((other) => other !== id))}
            className="py-0.5"
          >
            {path.join(" › ")}
            {retired && <span className="ps-2 text-sm text-soft">{say("categories.retired")}</span>}
          </Tick>
        ))}
      </div>
    </fieldset>
  );
}
