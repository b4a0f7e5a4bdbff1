import type { Ink } from "../../core/kernel/ink";

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
  return (
    <span
      // By its code alone it is a picture of the category, which the title names: a list has fifty of them.
      role={short ? "img" : undefined}
      title={retired ? `${name}, retired` : name}
      className={retired ? "tab border-dashed opacity-75" : "tab"}
      style={{ "--tab": `var(--${ink})` } as never}
    >
      <b>{code}</b>
      {!short && <span className="truncate">{name}</span>}
      {!short && retired && <span className="sr-only">, retired</span>}
    </span>
  );
}
