/** One method of an Authentication-Results field: `dkim=pass header.d=vanehouse.example`. */
export type MethodResult = {
  readonly method: string;
  readonly result: string;
  /** Properties such as header.d or smtp.mailfrom, names and values in lower case. */
  readonly properties: ReadonlyMap<string, string>;
};

export type AuthenticationResults = { readonly authservId: string; readonly results: readonly MethodResult[] };

const MAX_CHARACTERS = 10_000;

/** An Authentication-Results field (RFC 8601 2.2); null when it names no server. */
export function readAuthenticationResults(field: string): AuthenticationResults | null {
  const [first = "", ...others] = segments(field.slice(0, MAX_CHARACTERS));
  const authservId = first.trim().split(/\s+/)[0]?.toLowerCase() ?? "";
  if (authservId === "" || authservId.includes("=")) return null;
  return { authservId, results: others.flatMap(methodOf) };
}

function methodOf(segment: string): MethodResult[] {
  const [head = "", ...properties] = segment.trim().split(/\s+/);
  const [method = "", result = ""] = head.toLowerCase().split("=");
  if (method === "" || result === "") return [];
  const pairs = properties.flatMap((property): [string, string][] => {
    const at = property.indexOf("=");
    return at < 1 ? [] : [[property.slice(0, at).toLowerCase(), property.slice(at + 1).toLowerCase()]];
  });
  return [{ method: method.split("/")[0] ?? "", result, properties: new Map(pairs) }];
}

// Quoted strings, comments (RFC 5322 3.2.2, left out), semicolons, and everything else.
const TOKENS = /"((?:[^"\\]|\\.)*)"|(\()|(\))|(;)|\\?([^"();\\])|\\/gs;

function segments(field: string): string[] {
  const found = [""];
  let depth = 0;
  for (const [, quoted, opens, closes, semicolon, other] of field.matchAll(TOKENS)) {
    if (opens !== undefined) depth += 1;
    else if (closes !== undefined) depth = Math.max(0, depth - 1);
    else if (depth === 0 && semicolon !== undefined) found.push("");
    else if (depth === 0) found[found.length - 1] += quoted ?? other ?? "";
  }
  return found;
}
