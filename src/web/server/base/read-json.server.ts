/** What a hidden field carries as JSON; null where it is none, which its schema then refuses. */
export function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
