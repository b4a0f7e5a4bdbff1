import { Command } from "cmdk";
import { X } from "lucide-react";
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { mailboxName, readMailboxes } from "../../../core/kernel/email-address";
import { writingTexts } from "../../../texts/en/writing";
import type { RecipientChoice } from "../../server/writing/recipient-views.server";
import { useSay } from "../../ui/texts/use-say";
import { useRecipientChoices } from "./use-recipient-choices";
import { useRecipientEntries } from "./use-recipient-entries";

type RecipientFieldProps = {
  readonly label: string;
  readonly value: string;
  /** Everybody it goes to, in whichever list. */
  readonly all: string;
  readonly onChange: (value: string) => void;
  readonly problem: string | undefined;
  readonly autoFocus?: boolean;
};

/** A list of recipients: each one thing that can be taken out; what is typed is completed from those the tray knows. */
export function RecipientField({ label, value, all, onChange, problem, autoFocus = false }: RecipientFieldProps) {
  const say = useSay(writingTexts);
  const id = useId();
  const { finished, typed, type, finish, add, remove } = useRecipientEntries(value, onChange);
  const [isOpen, setOpen] = useState(false);
  const hasTyped = typed.trim() !== "";
  const taken = [all, ...finished].filter((list) => list !== typed.trim() && list !== "").join(", ");
  const { choices, isCurrent } = useRecipientChoices(typed, taken, isOpen);
  const shown = isOpen ? choices.filter(({ entries }) => !entries.every((entry) => finished.includes(entry))) : [];
  const enter = useEnter({ shown, hasTyped, isCurrent, finish, add });
  const onKeyDown = (event: KeyboardEvent) => {
    enter.onKeyDown(event);
    if (event.key === "Backspace" && typed === "") remove(finished.length - 1);
    if (event.key !== "Escape" || shown.length === 0) return;
    // What is open above the letter is left first.
    setOpen(false);
    event.stopPropagation();
  };
  return (
    <div className="grid grid-cols-[minmax(52px,max-content)_minmax(0,1fr)] items-start">
      <span aria-hidden className="pe-0.5 text-sm leading-[30px] font-semibold">
        {label}
      </span>
      <Command label={label} shouldFilter={false} loop onKeyDown={onKeyDown} className="relative">
        <div
          className={`flex min-h-[30px] flex-wrap items-center gap-1 rounded-control border bg-paper px-1 py-0.5 focus-within:outline-2 focus-within:outline-act ${problem === undefined ? "border-rule" : "border-late"}`}
        >
          <ul aria-label={label} className="contents">
            {finished.map((entry, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same may stand there twice until it is sent
              <Entry key={`${place} ${entry}`} entry={entry} onRemove={() => remove(place)} />
            ))}
          </ul>
          <Command.Input
            asChild
            aria-invalid={problem !== undefined}
            aria-describedby={problem === undefined ? undefined : `${id}-problem`}
            dir="auto"
            autoFocus={autoFocus}
            value={typed}
            onValueChange={(text) => {
              setOpen(true);
              type(text);
            }}
            // A line that takes one line only would lose where the entries of a list end.
            onPaste={(event) => {
              const pasted = event.clipboardData.getData("text/plain");
              if (!/[\n;,]/.test(pasted)) return;
              event.preventDefault();
              type(`${typed}${pasted.trim()},`);
            }}
            onFocus={() => setOpen(true)}
            onBlur={() => {
              setOpen(false);
              finish();
            }}
            className="h-[22px] min-w-24 flex-1 bg-transparent px-1.5 outline-none"
          >
            {/* By itself it says that a list is open, and which one of it is marked, also where there is none. */}
            <input {...(shown.length > 0 ? {} : { "aria-expanded": false, "aria-activedescendant": undefined })} />
          </Command.Input>
        </div>
        <p role="status" className="sr-only">
          {isOpen && isCurrent && hasTyped && say("writing.recipientsFound", { count: shown.length })}
        </p>
        <Command.List
          className={`absolute start-0 z-20 mt-0.5 max-h-72 w-full min-w-72 overflow-y-auto rounded-control border border-rule bg-paper py-1 shadow-(--shadow-raised) ${shown.length === 0 ? "hidden" : ""}`}
        >
          {shown.map(({ entries, name, about }) => (
            <Command.Item
              key={entries.join()}
              value={entries.join()}
              // The line keeps the focus, and with it what is typed.
              onMouseDown={(event) => event.preventDefault()}
              onSelect={() => add(entries)}
              className="flex cursor-pointer items-baseline gap-2 px-2.5 py-1 data-[selected=true]:bg-act-soft"
            >
              <span className="shrink-0">{name}</span>
              <span className="truncate text-sm text-soft">{about}</span>
            </Command.Item>
          ))}
        </Command.List>
        {problem !== undefined && (
          <p id={`${id}-problem`} className="mt-1 text-sm text-late">
            {problem}
          </p>
        )}
      </Command>
    </div>
  );
}

type Entered = Pick<ReturnType<typeof useRecipientEntries>, "finish" | "add"> & {
  readonly shown: readonly RecipientChoice[];
  readonly hasTyped: boolean;
  readonly isCurrent: boolean;
};

/** What Enter does: it takes the choice that is marked, once it is there, or finishes what was typed. */
function useEnter({ shown, hasTyped, isCurrent, finish, add }: Entered) {
  // It was faster than the answer.
  const [isHasty, setHasty] = useState(false);
  const takeFirst = useRef(finish);
  takeFirst.current = () => (shown[0] === undefined ? finish() : add(shown[0].entries));
  useEffect(() => {
    if (!isHasty || !isCurrent) return;
    setHasty(false);
    takeFirst.current();
  }, [isHasty, isCurrent]);
  const [hasMoved, setMoved] = useState(false);
  return {
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== "Enter") return setMoved(event.key.startsWith("Arrow"));
      const isSending = event.ctrlKey || event.metaKey;
      if (!isSending && isCurrent && shown.length > 0 && (hasTyped || hasMoved)) return;
      // Neither is a choice taken that nobody meant, nor the letter sent.
      event.preventDefault();
      if (!isSending && !isCurrent && hasTyped) setHasty(true);
      else finish();
    },
  };
}

type EntryProps = { readonly entry: string; readonly onRemove: () => void };

function Entry({ entry, onRemove }: EntryProps) {
  const say = useSay(writingTexts);
  const [mailbox] = readMailboxes(entry).mailboxes;
  const name = mailbox === undefined ? entry : mailboxName(mailbox);
  return (
    <li
      title={mailbox?.address}
      className={`flex max-w-full min-w-0 items-center rounded-control border ps-1.5 text-sm ${mailbox === undefined ? "border-late text-late" : "border-rule bg-ground"}`}
    >
      <span className="truncate">{name}</span>
      <button
        type="button"
        // By keyboard, Backspace takes the last one out.
        tabIndex={-1}
        aria-label={say("writing.withoutRecipient", { name })}
        onClick={onRemove}
        className="grid size-6 shrink-0 place-items-center text-soft hover:text-act"
      >
        <X size={12} aria-hidden />
      </button>
    </li>
  );
}
