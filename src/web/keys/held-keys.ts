/** A key as it was pressed while something opened. */
type HeldKey = Pick<KeyboardEvent, "key" | "code" | "keyCode" | "shiftKey" | "ctrlKey" | "metaKey" | "altKey">;

/**
 * Keys that are pressed from a command that opens something, or leads to another page, until that is there: they are given
 * to it in order, or dropped with it.
 */
export type HeldKeys = {
  /** A command that opens something was carried out. */
  readonly begin: () => void;
  /** Something is on its way until the function that comes back is called. */
  readonly await: () => () => void;
  /** A page is on its way. */
  readonly awaitPage: () => void;
  /** That page is there, and offers its commands. */
  readonly arrive: () => void;
  /** Hears every key before anything else. */
  readonly press: (event: KeyboardEvent) => void;
  /** Something has the focus now. */
  readonly focus: () => void;
  /** What is on its way is nothing to type for any more. */
  readonly drop: () => void;
};

export const TYPING =
  "input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable=true], [role=dialog], [role=menu]";
const EDITABLE = "input, textarea, [contenteditable=true]";
// What opens is drawn well within this time once nothing of it is on its way any more.
const DRAWN_MS = 300;

const opened = () => document.activeElement?.closest<HTMLElement>(TYPING) ?? null;

export function heldKeys(): HeldKeys {
  let held: HeldKey[] | null = null;
  let awaited = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isGiving = false;
  let isOpening = false;
  let isPageComing = false;

  const end = () => {
    clearTimeout(timer);
    held = null;
    isOpening = false;
    isPageComing = false;
  };
  const endUnlessItComes = () => {
    clearTimeout(timer);
    timer = setTimeout(() => awaited === 0 && !isGiving && !isPageComing && end(), DRAWN_MS);
  };
  const begin = () => {
    if (opened() !== null) return;
    held ??= [];
    isOpening = true;
    endUnlessItComes();
  };
  const give = async () => {
    if (held === null || isGiving) return;
    isGiving = true;
    isOpening = false;
    // What is pressed while these are given comes after them; what one of them opens has the rest.
    for (let key = held.shift(); key !== undefined; key = isOpening || isPageComing ? undefined : held?.shift()) {
      giveKey(key);
      if (key.key.length > 1 || opened() === null) await new Promise((resolve) => setTimeout(resolve));
    }
    isGiving = false;
    if (!isPageComing) goOn();
  };
  const goOn = () => {
    if (isOpening) opened() === null ? endUnlessItComes() : void give();
    else if (opened() !== null || awaited === 0) end();
  };
  return {
    begin,
    await() {
      awaited += 1;
      begin();
      let isOver = false;
      return () => {
        if (isOver) return;
        isOver = true;
        awaited -= 1;
        endUnlessItComes();
      };
    },
    awaitPage() {
      held ??= [];
      isOpening = false;
      isPageComing = true;
    },
    arrive() {
      if (!isPageComing) return;
      isPageComing = false;
      // What opens on the page takes them once it is there.
      if (isOpening && opened() === null) endUnlessItComes();
      // What a key does has to be drawn before the next, which is not so while the page is still being put in place.
      else setTimeout(give);
    },
    press(event) {
      if (held === null || !event.isTrusted) return;
      if (opened() !== null && held.length === 0 && !isGiving && !isPageComing) return end();
      if (MODIFIERS.has(event.key) || isForBrowser(event)) return;
      event.preventDefault();
      event.stopPropagation();
      const { key, code, keyCode, shiftKey, ctrlKey, metaKey, altKey } = event;
      held.push({ key, code, keyCode, shiftKey, ctrlKey, metaKey, altKey });
      if (opened() !== null && !isPageComing) void give();
    },
    focus() {
      if (held === null || opened() === null || isPageComing) return;
      // After what opened has moved the focus to where it wants it.
      setTimeout(() => opened() !== null && void give());
    },
    drop: () => {
      if (!isGiving) end();
    },
  };
}

const MODIFIERS: ReadonlySet<string> = new Set(["Shift", "Control", "Alt", "Meta", "AltGraph", "CapsLock"]);

// A reload or a search in the page is none of what opens; signs of the third level are typed with Ctrl and Alt (AltGr).
const isTypedSign = ({ key, ctrlKey, altKey }: HeldKey) => key.length === 1 && ctrlKey === altKey;
const isForBrowser = (event: KeyboardEvent) =>
  (event.metaKey || event.ctrlKey || event.altKey) && event.key !== "Enter" && (event.metaKey || !isTypedSign(event));

// As the browser would have it done, had the key been pressed now.
function giveKey(held: HeldKey): void {
  const target = document.activeElement ?? document.body;
  const isTaken = !target.dispatchEvent(new KeyboardEvent("keydown", { ...held, bubbles: true, cancelable: true }));
  if (isTaken || target !== document.activeElement) return;
  const isEditable = target.matches(EDITABLE);
  if (isTypedSign(held) && isEditable) document.execCommand("insertText", false, held.key);
  else if (held.ctrlKey || held.metaKey || held.altKey) return;
  else if (held.key === "Backspace" && isEditable) document.execCommand("delete");
  else if (held.key === "Enter" && target instanceof HTMLTextAreaElement)
    document.execCommand("insertText", false, "\n");
  else if (held.key === "Enter" && target instanceof HTMLInputElement) target.form?.requestSubmit();
  else if (held.key === "Enter" && target instanceof HTMLButtonElement) target.click();
}
