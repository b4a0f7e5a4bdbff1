import { Progress as Radix } from "radix-ui";

/** How far something is, from 0 to 1; its name is seen with it unless that stands there already. */
export function Progress({ value, label, isNamed = true }: { value: number; label: string; isNamed?: boolean }) {
  const percent = Math.round(Math.min(1, Math.max(0, value)) * 100);
  return (
    <span className="flex items-center gap-3 text-sm text-soft">
      <Radix.Root value={percent} aria-label={label} className="h-1.5 w-56 overflow-hidden rounded-control bg-sunk">
        <Radix.Indicator className="h-full bg-act transition-[width]" style={{ width: `${percent}%` }} />
      </Radix.Root>
      {isNamed && `${label}, `}
      <span className="whitespace-nowrap">{percent} %</span>
    </span>
  );
}
