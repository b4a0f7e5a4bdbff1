import { X } from "lucide-react";
import { Toast } from "radix-ui";
import { commonTexts } from "../../texts/en/common";
import { uiTexts } from "../../texts/en/ui";
import type { NoticeListProps } from "./notice";
import { useSay } from "./texts/use-say";

const SHOWN_MS = 6_000;
// Why something was not done takes longer to read than what was.
const PROBLEM_SHOWN_MS = 10_000;

/** Short notices: what was done, with its Undo, or why it was not. Screen readers are told. */
export function NoticeList({ notices, onClose }: NoticeListProps) {
  const say = useSay(uiTexts, commonTexts);
  return (
    <Toast.Provider label={say("ui.notice")} swipeDirection="right">
      {notices.map(({ key, kind, words, description, action, duration }) => (
        <Toast.Root
          key={key}
          type={kind === "problem" ? "foreground" : "background"}
          duration={duration ?? (kind === "problem" ? PROBLEM_SHOWN_MS : SHOWN_MS)}
          onOpenChange={(isOpen) => isOpen || onClose(key)}
          className={`flex w-full items-center gap-3 rounded-sheet border border-rule border-l-[3px] bg-paper py-2 pr-2 pl-3.5 text-sm text-ink shadow-raised ${kind === "problem" ? "border-l-late" : "border-l-act"}`}
        >
          <div className="min-w-0 flex-1">
            <Toast.Title className="[overflow-wrap:anywhere]">{words}</Toast.Title>
            {description !== undefined && (
              <Toast.Description className="text-soft [overflow-wrap:anywhere]">{description}</Toast.Description>
            )}
          </div>
          {action !== undefined && (
            <Toast.Action
              altText={action.label}
              onClick={action.onClick}
              className="h-7 shrink-0 rounded-control border border-rule px-2.5 font-semibold text-act hover:border-act"
            >
              {action.label}
            </Toast.Action>
          )}
          <Toast.Close
            aria-label={say("common.close")}
            className="grid size-7 shrink-0 place-items-center rounded-control text-soft hover:bg-ground hover:text-ink"
          >
            <X size={13} aria-hidden />
          </Toast.Close>
        </Toast.Root>
      ))}
      {/* As wide as the docket's column and above the shelf and the ways out, so that no decision is covered. */}
      <Toast.Viewport
        label={say("ui.noticesHotkey")}
        className="fixed right-5 bottom-[132px] z-50 flex w-68 max-w-[calc(100vw-40px)] flex-col gap-2 outline-none max-sm:bottom-16"
      />
    </Toast.Provider>
  );
}
