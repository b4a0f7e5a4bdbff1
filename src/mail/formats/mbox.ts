const NEWLINE = 10;
const CARRIAGE_RETURN = 13;
const QUOTE = 62;
const FROM = Buffer.from("From ");

/** The largest message that is taken from a file; of a larger one the rest is passed over. */
export const MAX_MESSAGE_BYTES = 64 * 1024 * 1024;

/**
 * The messages of an mbox file (RFC 4155), one at a time from chunks of any size. Quoting of both habits is taken off:
 * mboxo quotes lines that begin with "From ", mboxrd also those that begin with ">From "; one ">" goes in either case.
 * What stands before the first separator is no message and is passed over, and so is what a message has over 64 MB.
 */
export async function* readMbox(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let message: Buffer[] | null = null;
  let size = 0;
  for await (const line of markedLines(chunks)) {
    if (line === BEGINS) {
      if (message !== null) yield joined(message);
      message = [];
      size = 0;
    } else if (message !== null) {
      size += line.byteLength;
      if (size <= MAX_MESSAGE_BYTES) message.push(unquoted(line));
    }
  }
  if (message !== null) yield joined(message);
}

const BEGINS = Symbol("a message begins");

// The lines, and in the place of each separator the mark. One without its blank line is one if the next line begins a header.
async function* markedLines(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer | typeof BEGINS> {
  let afterBlank = true;
  let doubtful: Buffer | null = null;
  for await (const line of linesOf(chunks)) {
    if (doubtful !== null) yield HEADER_LINE.test(line.subarray(0, 100).toString("latin1")) ? BEGINS : doubtful;
    doubtful = null;
    const isFrom = line.subarray(0, FROM.length).equals(FROM);
    if (isFrom && afterBlank) yield BEGINS;
    else if (isFrom && isWholeSeparator(line)) doubtful = line;
    else yield line;
    afterBlank = isBlank(line);
  }
  if (doubtful !== null) yield doubtful;
}

const HEADER_LINE = /^[\w-]{1,60}:[ \t]/;
// "From address Tue Nov 24 10:00:00 2026" (RFC 4155, appendix A), a zone between time and year or not.
const WHOLE_SEPARATOR = /^From \S{1,320} +[A-Z][a-z]{2} [A-Z][a-z]{2} +\d{1,2} \d\d:\d\d(?::\d\d)? (?:\S{1,6} )?\d{4}/;

const isWholeSeparator = (line: Buffer) => WHOLE_SEPARATOR.test(line.subarray(0, 500).toString("latin1"));
const isBlank = (line: Buffer) => line.byteLength === 1 || (line.byteLength === 2 && line[0] === CARRIAGE_RETURN);

// The blank line before the next separator belongs to the format, not to the message.
function joined(lines: Buffer[]): Uint8Array {
  const last = lines.at(-1);
  if (last !== undefined && /^\r?\n$/.test(last.toString("latin1"))) lines.pop();
  return Buffer.concat(lines);
}

function unquoted(line: Buffer): Buffer {
  let quotes = 0;
  while (line[quotes] === QUOTE) quotes += 1;
  const isQuoted = quotes > 0 && line.subarray(quotes, quotes + FROM.length).equals(FROM);
  return isQuoted ? line.subarray(1) : line;
}

async function* linesOf(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  const pending: Buffer[] = [];
  let pendingBytes = 0;
  for await (const chunk of chunks) {
    const bytes = Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength);
    let start = 0;
    for (let end = bytes.indexOf(NEWLINE); end !== -1; end = bytes.indexOf(NEWLINE, start)) {
      pending.push(bytes.subarray(start, end + 1));
      yield pending.length === 1 ? (pending[0] ?? Buffer.alloc(0)) : Buffer.concat(pending);
      pending.length = 0;
      pendingBytes = 0;
      start = end + 1;
    }
    // A line without an end must not fill the memory.
    if (start < bytes.byteLength && pendingBytes <= MAX_MESSAGE_BYTES) {
      pending.push(bytes.subarray(start));
      pendingBytes += bytes.byteLength - start;
    }
  }
  if (pending.length > 0) yield Buffer.concat(pending);
}
