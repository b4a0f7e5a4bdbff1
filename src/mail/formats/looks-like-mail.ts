// What a message begins with (RFC 5322 section 3.6, and what relays and programs put above it); calendars and cards have
// lines of the same form and none of these names.
const FIELD =
  /^(?:from|to|cc|bcc|subject|date|sender|reply-to|message-id|in-reply-to|references|received|return-path|delivered-to|envelope-to|mime-version|content-[a-z-]+|list-[a-z-]+|dkim-signature|arc-[a-z-]+|authentication-results|x-[a-z0-9-]+|status|errors-to|precedence|organization|user-agent|resent-[a-z-]+|apparently-to|newsgroups|path|lines|thread-[a-z]+|auto-submitted)[ \t]*:/i;
const MAX_LINES = 200;

/** Whether a file that begins with these bytes can be a message: header lines, and one of the names that mail has. */
export function looksLikeMail(beginning: Uint8Array): boolean {
  const text = new TextDecoder("latin1").decode(beginning).replace(/^\u00ef\u00bb\u00bf/, "");
  if (text.includes("\0")) return false;
  const lines = text
    .replace(/^\s*\n/, "")
    .split(/\r?\n/)
    .slice(0, MAX_LINES);
  const end = lines.indexOf("");
  return (
    lines.slice(0, end === -1 ? MAX_LINES : end).some((line) => FIELD.test(line)) && !/^BEGIN:V/i.test(lines[0] ?? "")
  );
}
