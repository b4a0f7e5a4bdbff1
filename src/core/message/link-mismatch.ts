/** The site of a web address, without www; null for anything else. */
function siteOf(address: string): string | null {
  try {
    const { protocol, hostname } = new URL(address);
    return protocol === "http:" || protocol === "https:" ? hostname.toLowerCase().replace(/^www\./, "") : null;
  } catch {
    return null;
  }
}

// A text that is an address, or begins like one: "https://ottermoor.example/plan", "www.ottermoor.example", "ottermoor.example".
const NAMES_SITE = /^(?:https?:\/\/)?((?:[\p{L}\p{N}-]{1,63}\.){1,8}\p{L}{2,24})(?:[/?#:].*)?$/iu;

/**
 * The site that a link really leads to, when its text names another one; null for an honest link. A name and what stands
 * below it count as one site, as "ottermoor.example" for "post.ottermoor.example".
 */
export function linkMismatch(text: string, href: string): string | null {
  const leadsTo = siteOf(href);
  const named = NAMES_SITE.exec(text.trim())?.[1]
    ?.toLowerCase()
    .replace(/^www\./, "");
  if (leadsTo === null || named === undefined) return null;
  const same = leadsTo === named || leadsTo.endsWith(`.${named}`) || named.endsWith(`.${leadsTo}`);
  return same ? null : leadsTo;
}
