/** A subject without what replies and forwards put around it, and whether anything of the kind was there. */
export type BaseSubject = { readonly base: string; readonly isReply: boolean };

// RFC 5256 2.1 knows Re, Fw and Fwd; the others are the same in other languages.
const LEADER =
  /^(?:re|fwd?|aw|wg|antw|sv|vs|vb|vl|odp|pd|ynt|ilt|rif|r|i|rv|res|enc|tr|réf|ref|na|hv|továbbítás|fs|atb|ats|답장|回复|回覆|答复|转发|轉寄)\s*(?:\[[^[\]]*\])?\s*(?:\(\d+\))?[:：]\s*/iu;
const BLOB = /^\[[^[\]]*\]\s*/;
const TRAILER = /\s*\(fwd\)\s*$/i;
const WRAPPED = /^\[fwd:(.*)\]$/i;
const MAX_CHARACTERS = 500;

/** The base subject of RFC 5256 2.1, lower case for comparing. */
export function baseSubject(subject: string): BaseSubject {
  let text = subject.replace(/\s+/g, " ").trim().slice(0, MAX_CHARACTERS);
  let isReply = false;
  const strip = (pattern: RegExp, reply: boolean, mayEmpty: boolean): boolean => {
    const rest = text.replace(pattern, "");
    if (rest === text || (rest.trim() === "" && !mayEmpty)) return false;
    text = rest.trim();
    isReply ||= reply;
    return true;
  };
  for (let changed = true; changed; ) {
    while (strip(TRAILER, true, true));
    changed = strip(LEADER, true, true) || leaderBehindBlobs() || strip(BLOB, false, false);
    const inner = WRAPPED.exec(text)?.[1];
    if (inner !== undefined) {
      [text, isReply, changed] = [inner.trim(), true, true];
    }
  }
  return { base: text.toLowerCase(), isReply };

  // "[list] Re: subject": the blobs before a leader go with it.
  function leaderBehindBlobs(): boolean {
    let rest = text;
    while (BLOB.test(rest)) rest = rest.replace(BLOB, "");
    if (rest === text || !LEADER.test(rest)) return false;
    text = rest.replace(LEADER, "").trim();
    isReply = true;
    return true;
  }
}

const FORWARDED =
  /^\s*(?:\[(?!fwd)[^[\]]*\]\s*)?(?:(?:fwd?|wg|tr|vb|vs|rv|enc|pd|ilt|i|továbbítás|转发|轉寄|전달)\s*[:：]|\[fwd:)|\(fwd\)\s*$/iu;

/** Whether a subject says that the message passes another one on. */
export function saysForwarded(subject: string): boolean {
  return FORWARDED.test(subject.slice(0, MAX_CHARACTERS));
}
