/** A message as a link asks to begin it: recipients as they are typed into a field, a subject of one line, a plain text. */
export type AskedMessage = {
  readonly to: string;
  readonly cc: string;
  readonly subject: string;
  readonly body: string;
};

/**
 * Reads a `mailto:` URI (RFC 6068); null for what is none. Only recipients, subject and body are taken from it: of other
 * fields section 4 lets a program take what it holds to be harmless, and none of them is needed to begin. What is not
 * encoded as it should be is taken as it stands; a plus is a plus (section 5).
 */
export function readMailto(uri: string): AskedMessage | null {
  const parts = /^mailto:([^?#]*)(?:\?([^#]*))?/i.exec(uri.trim());
  if (parts === null) return null;
  const [, path = "", query = ""] = parts;
  const fields = query.split("&").map((field) => {
    const [name = "", ...value] = field.split("=");
    return { name: decoded(name).toLowerCase(), value: value.join("=") };
  });
  const valuesOf = (wanted: string) => fields.flatMap(({ name, value }) => (name === wanted ? [value] : []));
  return {
    to: recipientsIn([path, ...valuesOf("to")]),
    cc: recipientsIn(valuesOf("cc")),
    subject: oneLine(decoded(valuesOf("subject")[0] ?? "")),
    body: decoded(valuesOf("body")[0] ?? "").replace(/\r\n?/g, "\n"),
  };
}

// Section 2: a comma that stands for itself parts addresses, one that belongs to an address is encoded.
function recipientsIn(lists: readonly string[]): string {
  const entries = lists.flatMap((list) => list.split(",")).map((entry) => oneLine(decoded(entry)));
  return entries.filter((entry) => entry !== "").join(", ");
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

// A line break in a field would begin another one (section 7).
function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, " ").trim();
}
