import type { ReactNode } from "react";

/** A page of a tray that is no list: its heading, what can be done there beside it, and its body. */
export function Page({ title, beside, children }: { title: string; beside?: ReactNode; children: ReactNode }) {
  return (
    <main
      aria-label={title}
      className="mx-2 mt-2.5 flex min-h-0 flex-1 flex-col rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-4 py-1.5">
        <h1 className="font-serif text-xl">{title}</h1>
        {beside}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto [scrollbar-width:thin]">{children}</div>
    </main>
  );
}
