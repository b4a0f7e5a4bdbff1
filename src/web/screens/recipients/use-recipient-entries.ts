import { useEffect, useState } from "react";
import { splitEntries } from "../../../core/kernel/email-address";

type Entries = {
  /** Those that are finished, as they were typed. */
  readonly finished: readonly string[];
  readonly typed: string;
};

const textOf = ({ finished, typed }: Entries) => [...finished, typed.trim()].filter((entry) => entry !== "").join(", ");

/**
 * A list of recipients as it is written: its finished entries, and what is being typed. The text of the whole is what is
 * kept, so that what was typed and not finished goes with it.
 */
export function useRecipientEntries(value: string, onChange: (value: string) => void) {
  const [entries, setEntries] = useState<Entries>(() => ({ finished: splitEntries(value), typed: "" }));
  const written = textOf(entries);
  useEffect(() => {
    // Somebody else wrote it: a warning that was heeded, a colleague's version.
    if (value !== written) setEntries({ finished: splitEntries(value), typed: "" });
  }, [value, written]);
  const set = (next: Entries) => {
    setEntries(next);
    onChange(textOf(next));
  };
  const { finished, typed } = entries;
  return {
    finished,
    typed,
    /** What is typed; a comma, a semicolon or a line ends an entry. */
    type: (text: string) => {
      const cut = splitEntries(text);
      const goesOn = !/[,;\n]\s*$/.test(text);
      const ended = goesOn ? cut.slice(0, -1) : cut;
      if (ended.length === 0) return set({ finished, typed: text });
      set({ finished: [...finished, ...ended], typed: goesOn ? (cut.at(-1) ?? "") : "" });
    },
    finish: () => {
      if (typed.trim() !== "") set({ finished: [...finished, ...splitEntries(typed)], typed: "" });
    },
    add: (more: readonly string[]) => set({ finished: [...finished, ...more], typed: "" }),
    remove: (at: number) => set({ finished: finished.filter((_, place) => place !== at), typed }),
  };
}
