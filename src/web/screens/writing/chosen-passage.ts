import { htmlOfText } from "../../../core/writing/html-of-text";

/** The passage of a letter that is selected on the page, quoted, with room for the answer to it; empty where none is. */
export function chosenPassage(): string {
  const selection = window.getSelection();
  const text = selection?.toString().trim() ?? "";
  const letter = selection?.anchorNode?.parentElement?.closest("article");
  // What reaches over several letters is none of their passages.
  if (text === "" || letter?.contains(selection?.focusNode ?? null) !== true) return "";
  return `<blockquote>${htmlOfText(text)}</blockquote><p></p>`;
}
