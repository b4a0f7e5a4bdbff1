const ENTITIES: Readonly<Record<string, string>> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };

/** Plain text as it stands in HTML. */
export function escapedText(text: string): string {
  return text.replace(/[&<>"]/g, (mark) => ENTITIES[mark] ?? mark);
}

/** Plain text as HTML: a paragraph for each block of lines, the lines kept. */
export function htmlOfText(text: string): string {
  const paragraphs = text.trim().split(/\n\s*\n/);
  return paragraphs.map((lines) => `<p>${escapedText(lines).replaceAll("\n", "<br>")}</p>`).join("");
}
