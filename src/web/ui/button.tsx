import type { ComponentProps } from "react";

type Look = "filled" | "outline" | "quiet";

const LOOKS: Readonly<Record<Look, string>> = {
  filled: "border-act bg-act text-on-act hover:brightness-110",
  outline: "border-rule bg-paper text-ink hover:border-act hover:text-act",
  quiet: "border-transparent bg-transparent text-soft hover:bg-sunk hover:text-ink",
};

const SHAPE =
  "inline-flex h-8 items-center gap-2 whitespace-nowrap rounded-control border px-3 font-semibold transition-colors";

/** How a link looks that stands where a button would. */
export const BUTTON_LINK = `${SHAPE} ${LOOKS.outline}`;
export const QUIET_LINK = `${SHAPE} ${LOOKS.quiet}`;

/** A button. One filled one a screen: the likely next step. */
export function Button({
  look = "outline",
  className = "",
  type = "button",
  ...native
}: ComponentProps<"button"> & { look?: Look }) {
  return (
    <button
      type={type}
      className={`${SHAPE} disabled:cursor-default disabled:opacity-60 ${LOOKS[look]} ${className}`}
      {...native}
    />
  );
}

/** The key that works a control, small, in a cap; hidden from screen readers, which hear it from aria-keyshortcuts. */
export function KeyCap({ children }: { children: string }) {
  return (
    <kbd
      aria-hidden
      className="hidden min-w-[18px] rounded-[2px] border border-current/35 px-1 text-center font-sans text-[11px] leading-[15px] font-medium sm:inline-block"
    >
      {children}
    </kbd>
  );
}
