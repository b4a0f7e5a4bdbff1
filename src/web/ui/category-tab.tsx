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
  const colour = `var(--${ink})`;
  return (
    <span
      title={retired ? `${name}, retired` : name}
      className={`inline-flex h-[20px] max-w-[min(150px,100%)] items-center gap-1.5 border-t-[3px] pr-3 pl-1.5 text-[12.5px] leading-4 ${retired ? "border-dashed opacity-75" : ""}`}
      style={{
        borderColor: colour,
        background: `color-mix(in oklab, ${colour} 15%, var(--paper))`,
        // The inks were chosen for edges; text in them alone would be too light for its size.
        color: `color-mix(in oklab, ${colour} 45%, var(--ink))`,
        clipPath: "polygon(0 0, calc(100% - 6px) 0, 100% 100%, 0 100%)",
      }}
    >
      <span className="shrink-0 text-[10.5px] font-bold tracking-wide whitespace-nowrap">{code}</span>
      {short ? <span className="sr-only">{name}</span> : <span className="truncate">{name}</span>}
      {retired && <span className="sr-only">, retired</span>}
    </span>
  );
}
