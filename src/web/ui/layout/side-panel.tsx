import type { ReactNode } from "react";

type SidePanelProps = {
  readonly label: string;
  /** The lines and measures of where it stands. */
  readonly className?: string;
  readonly children: ReactNode;
};

/** What stands beside the body of a page, and moves by itself. */
export function SidePanel({ label, className = "", children }: SidePanelProps) {
  return (
    <aside aria-label={label} className={`min-h-0 lg:overflow-y-auto [scrollbar-width:thin] ${className}`}>
      {children}
    </aside>
  );
}

type DocketFrameProps = {
  /** Where a conversation stands, and why. */
  readonly standing: string;
  readonly reason: string;
  readonly children: ReactNode;
};

/** The docket as a card: the standing with its reason on top. */
export function DocketFrame({ standing, reason, children }: DocketFrameProps) {
  return (
    <div className="rounded-sheet border border-rule bg-paper shadow-docket">
      <div className="border-b border-hair px-3 py-2.5">
        <h2 className="font-serif text-[18px] leading-6 font-semibold">{standing}</h2>
        <p className="mt-0.5 text-sm text-soft">{reason}</p>
      </div>
      {children}
    </div>
  );
}
