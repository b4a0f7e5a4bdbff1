import { Command } from "cmdk";
import { Check, Minus } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from "react";
import { commonTexts } from "../../texts/en/common";
import { uiTexts } from "../../texts/en/ui";
import { Dialog } from "./dialog";
import { entryValue, matchWords } from "./match-words";
import { useSay } from "./texts/use-say";

/** One thing to pick. `words` is what typing is matched against. */
export type Choice = {
  readonly id: string;
  readonly words: string;
  readonly face: ReactNode;
  readonly on?: boolean | "some";
};

type PickerProps = {
  readonly title: string;
  readonly prompt: string;
  readonly choices: readonly Choice[];
  /** What stands below the choices whatever was typed. */
  readonly always?: readonly Choice[];
  readonly empty: string;
  /** Whether the choices are on their way still: Enter then takes the first that fits once they are there. */
  readonly isLoading?: boolean;
  readonly onPick: (id: string) => void;
  readonly onClose: () => void;
  /** Called as one types, when somebody else does the matching. */
  readonly onType?: (text: string) => void;
  /** Called as one types, while the matching is done here. */
  readonly onText?: (text: string) => void;
  readonly footer?: ReactNode;
  readonly size?: "small" | "wide";
};

/** A list to pick from by typing, arrows and Enter, or by a click; picking does not close it. */
export function Picker(props: PickerProps) {
  const { title, prompt, choices, always = [], empty, onPick, onClose, onType, onText, footer, size = "small" } = props;
  const onKeyAhead = useEnterAhead(props);
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title={title} size={size}>
      <Command
        label={title}
        shouldFilter={onType === undefined}
        filter={matchWords}
        loop
        onKeyDown={onKeyAhead}
        className="flex min-h-0 flex-col"
      >
        <Command.Input
          autoFocus
          placeholder={prompt}
          onValueChange={(text) => {
            onType?.(text);
            onText?.(text);
          }}
          className="mx-4 my-3 h-9 rounded-control border border-rule bg-ground px-2.5 placeholder:text-soft"
        />
        <Command.List className="min-h-0 overflow-y-auto border-t border-hair py-1">
          {always.length === 0 && <Command.Empty className="px-4 py-3 text-soft">{empty}</Command.Empty>}
          {choices.map((choice) => (
            <Item key={choice.id} choice={choice} onPick={onPick} />
          ))}
          {always.length > 0 && (
            <Command.Group forceMount className="border-t border-hair first:border-0">
              {always.map((choice) => (
                <Item key={choice.id} choice={choice} onPick={onPick} isAlways />
              ))}
            </Command.Group>
          )}
        </Command.List>
      </Command>
      {footer !== undefined && <div className="border-t border-hair bg-ground px-4 py-2.5">{footer}</div>}
    </Dialog>
  );
}

/** Takes the first choice that fits what was typed, where Enter was faster than the choices came. */
function useEnterAhead({ isLoading = false, choices, onPick }: PickerProps) {
  const asked = useRef<string | null>(null);
  useEffect(() => {
    if (isLoading || asked.current === null) return;
    const text = asked.current;
    asked.current = null;
    const fits = choices.map(({ id, words }) => ({ id, score: matchWords(entryValue(words, id), text) }));
    const [best] = fits.filter(({ score }) => score > 0).toSorted((a, b) => b.score - a.score);
    if (best !== undefined) onPick(best.id);
  }, [isLoading, choices, onPick]);
  return ({ key, target }: KeyboardEvent) => {
    if (isLoading && key === "Enter" && target instanceof HTMLInputElement) asked.current = target.value;
  };
}

type ItemProps = { readonly choice: Choice; readonly onPick: (id: string) => void; readonly isAlways?: boolean };

function Item({ choice, onPick, isAlways = false }: ItemProps) {
  const say = useSay(uiTexts, commonTexts);
  return (
    <Command.Item
      value={entryValue(choice.words, choice.id)}
      forceMount={isAlways}
      onSelect={() => onPick(choice.id)}
      className="flex cursor-pointer items-center gap-3 px-4 py-1.5 data-[selected=true]:bg-act-soft"
    >
      <span className="min-w-0 flex-1 truncate">{choice.face}</span>
      {choice.on === true && <Check size={15} aria-label={say("common.added")} className="text-act" />}
      {choice.on === "some" && <Minus size={15} aria-label={say("ui.onSome")} className="text-act" />}
    </Command.Item>
  );
}
