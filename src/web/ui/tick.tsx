import type { ComponentProps, ReactNode } from "react";

type TickProps = Omit<ComponentProps<"input">, "type" | "className" | "children" | "onChange"> & {
  readonly children: ReactNode;
  readonly onTick?: (isOn: boolean) => void;
  readonly className?: string;
};

/** A checkbox and the words beside it, which tick it as well. */
export function Tick({ children, onTick, className = "", ...native }: TickProps) {
  return (
    <label className={`flex min-h-6 cursor-pointer items-center gap-2 ${className}`}>
      <input
        type="checkbox"
        className="size-4 shrink-0 accent-act"
        {...(onTick && { onChange: (event) => onTick(event.target.checked) })}
        {...native}
      />
      <span className="min-w-0">{children}</span>
    </label>
  );
}
