import { Check, ChevronDown } from "lucide-react";
import { Select as Radix } from "radix-ui";
import { MENU, MENU_ITEM } from "./menu-look";

type SelectProps = {
  readonly label: string;
  readonly value: string;
  readonly choices: readonly (readonly [value: string, words: string])[];
  readonly onChoose: (value: string) => void;
  /** Quiet stands among words, without an edge. */
  readonly look?: "outline" | "quiet";
};

const LOOKS = {
  outline: "h-8 gap-2 border-rule bg-paper px-2.5 hover:border-act",
  quiet: "-ml-1 h-6 gap-1 border-transparent px-1 text-sm text-act hover:bg-act-soft",
} as const;

// The primitive keeps the empty text for "nothing chosen", which is a choice here.
const EMPTY = "-";

/** One of a few, out of a list that drops down. */
export function Select({ label, value, choices, onChoose, look = "outline" }: SelectProps) {
  return (
    <Radix.Root value={value || EMPTY} onValueChange={(chosen) => onChoose(chosen === EMPTY ? "" : chosen)}>
      <Radix.Trigger
        aria-label={label}
        className={`flex items-center rounded-control border font-normal whitespace-nowrap ${LOOKS[look]}`}
      >
        {/* In words from the start: by itself it knows them only once the list has been drawn in the browser. */}
        <Radix.Value>{choices.find(([one]) => one === value)?.[1]}</Radix.Value>
        <ChevronDown size={13} aria-hidden className="text-soft" />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content position="popper" sideOffset={4} className={`${MENU} max-h-72`}>
          <Radix.Viewport>
            {choices.map(([one, words]) => (
              <Radix.Item key={one} value={one || EMPTY} className={`${MENU_ITEM} justify-between gap-6`}>
                <Radix.ItemText>{words}</Radix.ItemText>
                <Radix.ItemIndicator>
                  <Check size={14} aria-hidden />
                </Radix.ItemIndicator>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
