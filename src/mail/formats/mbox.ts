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
  const gathering = gatherer();
  for await (const lines of linesOf(chunks)) {
    for (const line of lines) {
      const message = gathering.take(line);
      if (message !== null) yield message;
    }
  }
  const last = gathering.end();
  if (last !== null) yield last;
}

// Takes line by line, and gives a message when it has all of it. A separator without its blank line is one if the next line
// begins a header.
function gatherer() {
  let message: Buffer[] | null = null;
  let size = 0;
  let afterBlank = true;
  let doubtful: Buffer | null = null;
  const keep = (line: Buffer) => {
    if (message === null) return;
    size += line.byteLength;
    if (size <= MAX_MESSAGE_BYTES) message.push(unquoted(line));
  };
  const begin = () => {
    const whole = message === null ? null : joined(message);
    message = [];
    size = 0;
    return whole;
  };
  return {
    take(line: Buffer): Uint8Array | null {
      let whole: Uint8Array | null = null;
      if (doubtful !== null) {
        if (HEADER_LINE.test(line.subarray(0, 100).toString("latin1"))) whole = begin();
        else keep(doubtful);
        doubtful = null;
      }
      const isFrom = saysFrom(line, 0);
      if (isFrom && afterBlank) whole = begin();
      else if (isFrom && isWholeSeparator(line)) doubtful = line;
      else keep(line);
      afterBlank = isBlank(line);
      return whole;
    },
    end(): Uint8Array | null {
      if (doubtful !== null) keep(doubtful);
      return message === null ? null : joined(message);
    },
  };
}

const saysFrom = (line: Buffer, at: number) => line[at] === FROM[0] && line.subarray(at, at + FROM.length).equals(FROM);

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
  return quotes > 0 && saysFrom(line, quotes) ? line.subarray(1) : line;
}

// All of a chunk at once: to wait for each of a million lines costs more than to find them.
async function* linesOf(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer[]> {
  const pending: Buffer[] = [];
  let pendingBytes = 0;
  for await (const chunk of chunks) {
    const bytes = Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength);
    const lines: Buffer[] = [];
    let start = 0;
    for (let end = bytes.indexOf(NEWLINE); end !== -1; end = bytes.indexOf(NEWLINE, start)) {
      const line = bytes.subarray(start, end + 1);
      lines.push(pending.length === 0 ? line : Buffer.concat([...pending, line]));
      pending.length = 0;
      pendingBytes = 0;
      start = end + 1;
    }
    yield lines;
    // A line without an end must not fill the memory.
    if (start < bytes.byteLength && pendingBytes <= MAX_MESSAGE_BYTES) {
      pending.push(bytes.subarray(start));
      pendingBytes += bytes.byteLength - start;
    }
  }
  if (pending.length > 0) yield [Buffer.concat(pending)];
}
