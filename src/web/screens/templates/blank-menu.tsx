import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import {
  ASKED,
  BLANK_ATTRIBUTE,
  CHOICES_ATTRIBUTE,
  COUNTED_DAYS,
  DAYS_ATTRIBUTE,
  FILLINGS,
  PASSAGE_ATTRIBUTE,
} from "../../../core/templates/blank";
import { escapedText } from "../../../core/writing/html-of-text";
import { templatesTexts } from "../../../texts/en/templates";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { useSay } from "../../ui/texts/use-say";

const KINDS = [...FILLINGS, ...COUNTED_DAYS, ...ASKED] as const;
type Kind = (typeof KINDS)[number];

// Each as it is said, and, where it is asked for, what stands in it until its writer says what belongs there.
const WORDS = {
  greeting: "templates.blankGreeting",
  "their-name": "templates.blankTheirName",
  "their-organisation": "templates.blankTheirOrganisation",
  "their-day": "templates.blankTheirDay",
  "record-code": "templates.blankRecordCode",
  "record-title": "templates.blankRecordTitle",
  owner: "templates.blankOwner",
  "my-name": "templates.blankMyName",
  "tray-name": "templates.blankTrayName",
  today: "templates.blankToday",
  "in-days": "templates.blankInDays",
  "in-working-days": "templates.blankInWorkingDays",
  text: "templates.blankText",
  number: "templates.blankNumber",
  date: "templates.blankDate",
  choice: "templates.blankChoice",
} as const;

const USUAL_DAYS = 5;

/** Puts a blank, or a passage that is left out unless it is taken in, into the text of a template. */
export function BlankMenu({ onInsert }: { readonly onInsert: (html: string) => void }) {
  const say = useSay(templatesTexts);
  const insert = (kind: Kind) => {
    const more: Partial<Record<Kind, string>> = {
      "in-days": ` ${DAYS_ATTRIBUTE}="${USUAL_DAYS}"`,
      "in-working-days": ` ${DAYS_ATTRIBUTE}="${USUAL_DAYS}"`,
      choice: ` ${CHOICES_ATTRIBUTE}="${escapedText(say("templates.usualChoices"))}"`,
    };
    onInsert(`<span ${BLANK_ATTRIBUTE}="${kind}"${more[kind] ?? ""}>${escapedText(say(WORDS[kind]))}</span>`);
  };
  const group = (name: string, kinds: readonly Kind[]) => (
    <DropdownMenu.Group>
      <DropdownMenu.Label className="px-2.5 pt-1.5 text-sm text-soft">{name}</DropdownMenu.Label>
      {kinds.map((kind) => (
        <DropdownMenu.Item key={kind} className={MENU_ITEM} onSelect={() => insert(kind)}>
          {say(WORDS[kind])}
        </DropdownMenu.Item>
      ))}
    </DropdownMenu.Group>
  );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="ms-auto flex h-7 items-center gap-1.5 rounded-control px-1.5 text-sm text-act hover:bg-sunk">
        {say("templates.insertABlank")} <ChevronDown size={13} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        {/* What is put in takes the focus. */}
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className={`${MENU} max-h-96 overflow-y-auto`}
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          {group(say("templates.filledByItself"), [...FILLINGS, ...COUNTED_DAYS])}
          {group(say("templates.askedFor"), ASKED)}
          <DropdownMenu.Separator className="my-1 border-t border-hair" />
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => onInsert(`<div ${PASSAGE_ATTRIBUTE}=""><p></p></div>`)}
          >
            {say("templates.aPassage")}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
