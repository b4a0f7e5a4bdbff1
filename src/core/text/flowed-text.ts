const SIGNATURE = "-- ";

type FlowedLine = { readonly depth: number; readonly text: string; readonly flows: boolean };

/**
 * Text of format=flowed with its paragraphs on lines of their own (RFC 3676 section 4): lines that end in a space go on in the
 * next one of the same depth of quotation, whose marks and stuffed space are taken off before they are joined. `delSp` takes
 * the space at a line's end away as well. Lines are apart by LF or CRLF; quoted ones come back as `> text`, `>> text`.
 */
export function unflowed(text: string, delSp: boolean): string {
  const out: string[] = [];
  let open: { depth: number; parts: string[] } | null = null;
  for (const line of text.split(/\r?\n/)) {
    const { depth, text: own, flows } = flowedLine(line);
    // An empty line parts paragraphs even after one that was to go on, as those who write such lines mean it.
    if (open !== null && (open.depth !== depth || own === SIGNATURE || own === "")) {
      out.push(marked(open.depth, open.parts.join("")));
      open = null;
    }
    const kept = flows && delSp ? own.slice(0, -1) : own;
    if (open === null) open = { depth, parts: [kept] };
    else open.parts.push(kept);
    if (flows) continue;
    out.push(marked(depth, open.parts.join("")));
    open = null;
  }
  if (open !== null) out.push(marked(open.depth, open.parts.join("")));
  return out.join("\n");
}

function flowedLine(line: string): FlowedLine {
  let depth = 0;
  while (line.charAt(depth) === ">") depth += 1;
  const stuffed = line.slice(depth);
  const text = stuffed.startsWith(" ") ? stuffed.slice(1) : stuffed;
  return { depth, text, flows: text.endsWith(" ") && text !== SIGNATURE };
}

// What was stuffed so that its own ">" is no quotation stays apart from the margin.
function marked(depth: number, text: string): string {
  if (depth > 0) return text === "" ? ">".repeat(depth) : `${">".repeat(depth)} ${text}`;
  return text.startsWith(">") ? ` ${text}` : text;
}
