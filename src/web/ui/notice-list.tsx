import { X } from "lucide-react";
import { type CSSProperties, useEffect } from "react";
import { Toaster } from "sonner";

export { toast } from "sonner";

// As wide as the docket's column and above the shelf and the ways out, so that no decision is covered.
const WIDTH = { "--width": "272px" } as CSSProperties;
const FROM_EDGE = { bottom: 104, right: 20 };
// On a phone that bar is all there is at the lower edge.
const FROM_PHONE_EDGE = { bottom: 64 };
const SHOWN_MS = 6_000;

/** Where short notices appear: what was done, with its Undo, or why it was not. Screen readers are told politely. */
export default function NoticeList({ onReady }: { onReady: () => void }) {
  useEffect(onReady, [onReady]);
  return (
    <Toaster
      position="bottom-right"
      closeButton
      offset={FROM_EDGE}
      mobileOffset={FROM_PHONE_EDGE}
      style={WIDTH}
      icons={{ close: <X size={13} aria-hidden /> }}
      toastOptions={{
        duration: SHOWN_MS,
        unstyled: true,
        classNames: {
          toast:
            "flex w-full items-center gap-3 rounded-sheet border border-rule border-l-[3px] border-l-act bg-paper py-2 pr-2 pl-3.5 font-sans text-sm text-ink shadow-raised data-[type=error]:border-l-late",
          content: "order-1 min-w-0 flex-1",
          description: "text-soft",
          actionButton:
            "order-2 h-7 shrink-0 rounded-control border border-rule px-2.5 font-semibold text-act hover:border-act",
          closeButton:
            "order-3 grid size-7 shrink-0 place-items-center rounded-control text-soft hover:bg-ground hover:text-ink",
          icon: "hidden",
        },
      }}
    />
  );
}
