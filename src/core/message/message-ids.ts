// A b-tree key must stay below a third of a page; no honest generator comes near this.
const MAX_ID_CHARACTERS = 500;
// RFC 5322 sets no limit; JWZ-style chains stay useful with the newest ids, and a hostile header stays cheap.
export const MAX_REFERENCES = 200;

/**
 * The message ids in a Message-ID, In-Reply-To or References field (RFC 5322 3.6.4), without angle brackets, in order,
 * each once. Text between them (the phrases of RFC 822) is passed over; a value without brackets counts when it is one
 * word with an @ in it. Of more than `MAX_REFERENCES` ids the last are kept: they name the nearest parents.
 */
export function readMessageIds(field: string): string[] {
  const bracketed = [...field.matchAll(/<([^<>]*)>/g)].map((match) => (match[1] ?? "").replace(/\s+/g, ""));
  const bare = field.trim();
  const found = bracketed.length > 0 ? bracketed : /^[^\s<>]+@[^\s<>]+$/.test(bare) ? [bare] : [];
  const usable = found.filter((id) => id !== "" && id.length <= MAX_ID_CHARACTERS);
  return [...new Set(usable)].slice(-MAX_REFERENCES);
}

/**
 * The ids that an answer carries in References: the parent's own references, then the parent (RFC 5322 3.6.4); the first
 * and the newest are kept when there are more than `limit`, as the first names the thread.
 */
export function referencesForReply(
  parent: { messageId: string | null; inReplyTo: readonly string[]; references: readonly string[] },
  limit = 50,
): string[] {
  const chain = parent.references.length > 0 ? parent.references : parent.inReplyTo.slice(0, 1);
  const all = [...new Set(parent.messageId === null ? chain : [...chain, parent.messageId])];
  const first = all[0];
  return all.length <= limit || first === undefined ? all : [first, ...all.slice(1 - limit)];
}
