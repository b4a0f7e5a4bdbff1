import { Dialog as Radix } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";

const SIZES = { small: "max-w-md", wide: "max-w-xl", page: "max-w-4xl" } as const;

/** A small sheet on top of the screen, with a title; Escape and a click beside it close it. */
export function Dialog({
  title,
  description,
  children,
  size = "small",
  ...root
}: ComponentProps<typeof Radix.Root> & {
  title: string;
  description?: string;
  children: ReactNode;
  size?: "small" | "wide" | "page";
}) {
  return (
    <Radix.Root {...root}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/20" />
        <Radix.Content
          aria-describedby={undefined}
          className={`fixed top-[12vh] left-1/2 z-50 flex max-h-[76vh] w-[calc(100vw-32px)] -translate-x-1/2 flex-col overflow-hidden rounded-sheet border border-rule bg-paper shadow-raised ${SIZES[size]}`}
        >
          <div className="border-b border-hair px-4 pt-3 pb-2">
            <Radix.Title className="font-serif text-xl">{title}</Radix.Title>
            {description !== undefined && <p className="text-sm text-soft">{description}</p>}
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
