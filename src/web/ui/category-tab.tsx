import type { Ink } from "../../core/kernel/ink";
import { uiTexts } from "../../texts/en/ui";
import { useSay } from "./texts/use-say";

/** An index tab: code and name in the category's ink, its upper edge inked, cut at the right. */
export function CategoryTab({
  code,
  name,
  ink,
  short = false,
  retired = false,
}: {
  code: string;
  name: string;
  ink: Ink;
  short?: boolean;
  retired?: boolean;
}) {
  const say = useSay(uiTexts);
  return (
    <span
      // By its code alone it is a picture of the category, which the title names: a list has fifty of them.
      role={short ? "img" : undefined}
      title={retired ? say("ui.retired", { name }) : name}
      className={retired ? "tab border-dashed opacity-75" : "tab"}
      style={{ "--tab": `var(--${ink})` } as never}
    >
      <b>{code}</b>
      {!short && <span className="truncate">{name}</span>}
      {!short && retired && <span className="sr-only">{say("ui.andRetired")}</span>}
    </span>
  );
}
