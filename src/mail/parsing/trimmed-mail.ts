const NEWLINE = 10;
const CARRIAGE_RETURN = 13;
const KEPT_HEADER_BYTES = 256 * 1024;
const KEPT_BODY_BYTES = 100_000;

/** A message with only the start of its header: whole lines, and the body as it is. */
export function cutHeader(raw: Uint8Array): Uint8Array {
  const end = headerEnd(raw);
  if (end.header <= KEPT_HEADER_BYTES) return raw;
  const lastLine = raw.lastIndexOf(NEWLINE, KEPT_HEADER_BYTES);
  const kept = raw.subarray(0, lastLine === -1 ? KEPT_HEADER_BYTES : lastLine + 1);
  return Buffer.concat([kept, Buffer.from("\r\n"), raw.subarray(end.body)]);
}

/** A message as plain text: its header without the fields that say how the body is built, and the start of the body raw. */
export function withoutStructure(raw: Uint8Array): Uint8Array {
  const { header, body } = headerEnd(raw);
  const fields = Buffer.from(raw.subarray(0, Math.min(header, KEPT_HEADER_BYTES)))
    .toString("latin1")
    .split(/\r?\n(?![ \t])/)
    .filter((field) => field.trim() !== "" && !/^(?:content-|mime-version)/i.test(field));
  return Buffer.concat([
    Buffer.from(`${fields.join("\r\n")}\r\n\r\n`, "latin1"),
    raw.subarray(body, body + KEPT_BODY_BYTES),
  ]);
}

// Where the header ends and the body begins; a message without an empty line is all header.
function headerEnd(raw: Uint8Array): { header: number; body: number } {
  for (let at = raw.indexOf(NEWLINE); at !== -1; at = raw.indexOf(NEWLINE, at + 1)) {
    const next = raw[at + 1] === CARRIAGE_RETURN ? at + 2 : at + 1;
    if (raw[next] === NEWLINE) return { header: at + 1, body: next + 1 };
  }
  return { header: raw.byteLength, body: raw.byteLength };
}
