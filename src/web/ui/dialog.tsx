import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";
import { commonTexts } from "../../texts/en/common";
import { useSay } from "./texts/use-say";

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
  const say = useSay(commonTexts);
  return (
    <Radix.Root {...root}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/20" />
        <Radix.Content
          aria-describedby={undefined}
          // A notice that appeared since is on top and takes this key for itself alone.
          onKeyDown={(event) => event.key === "Escape" && !event.defaultPrevented && root.onOpenChange?.(false)}
          className={`fixed top-[12vh] left-1/2 z-50 flex max-h-[76vh] w-[calc(100vw-32px)] -translate-x-1/2 flex-col overflow-hidden rounded-sheet border border-rule bg-paper shadow-raised ${SIZES[size]}`}
        >
          <div className="relative border-b border-hair px-4 pt-3 pb-2">
            {/* First in order, so that the keyboard begins here and not inside a frame that would swallow Escape. */}
            {size === "page" && (
              <Radix.Close
                aria-label={say("common.close")}
                className="absolute top-3 right-3 grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
              >
                <X size={16} aria-hidden />
              </Radix.Close>
            )}
            <Radix.Title className="pr-9 font-serif text-xl">{title}</Radix.Title>
            {description !== undefined && <p className="text-sm text-soft">{description}</p>}
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
