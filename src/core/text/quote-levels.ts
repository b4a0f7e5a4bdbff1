/** Lines that stand at one depth of quotation, without their marks. */
export type QuotedBlock = { readonly level: number; readonly text: string };

// Deeper than this nobody follows; the marks beyond stay in the text.
const MAX_LEVEL = 6;

/** A plain text cut where the depth of quotation changes (RFC 3676 4.5: one `>` a level, spaces between them tolerated). */
export function quoteLevels(text: string): QuotedBlock[] {
  const blocks: { level: number; lines: string[] }[] = [];
  for (const line of text.split("\n")) {
    const marks = /^(?:> ?){1,6}/.exec(line)?.[0] ?? "";
    const level = Math.min(MAX_LEVEL, marks.split(">").length - 1);
    const last = blocks.at(-1);
    if (last !== undefined && last.level === level) last.lines.push(line.slice(marks.length));
    else blocks.push({ level, lines: [line.slice(marks.length)] });
  }
  return blocks
    .map(({ level, lines }) => ({ level, text: lines.join("\n").replace(/^\n+|\n+$/g, "") }))
    .filter((block) => block.text.trim() !== "");
}
