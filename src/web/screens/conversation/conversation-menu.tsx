import { MoreHorizontal } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { conversationTexts } from "../../../texts/en/conversation";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import type { ConversationDesk } from "../list/list-screen";

const FORMATS = [
  ["eml", "conversation.exportAsEmlFilesIn"],
  ["mbox", "conversation.exportAsMbox"],
] as const;

type ConversationMenuProps = {
  readonly conversationId: string;
  readonly ask: ConversationDesk["ask"];
  /** Undefined where there is nothing to pass on. */
  readonly onPassOn: (() => void) | undefined;
};

/** What is done with a whole conversation now and then. */
export function ConversationMenu({ conversationId, ask, onPassOn }: ConversationMenuProps) {
  const say = useSay(conversationTexts);
  const { tray, mayDecide } = useTray();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={say("conversation.moreAboutThisConversation")}
        className="grid size-7 shrink-0 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
      >
        <MoreHorizontal size={17} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end">
          {mayDecide && onPassOn !== undefined && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={onPassOn}>
              {say("conversation.forward")}
            </DropdownMenu.Item>
          )}
          {mayDecide && (
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => ask("join")}>
              {say("conversation.mergeWithAnotherConversation")}
            </DropdownMenu.Item>
          )}
          {FORMATS.map(([format, words]) => (
            <DropdownMenu.Item key={format} className={MENU_ITEM} asChild>
              <a href={`/${tray.slug}/export/${conversationId}?format=${format}`}>{say(words)}</a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
