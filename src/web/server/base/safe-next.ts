import type { SiteMap } from "./site-map.server";

// Of no importance but to be one: what leads elsewhere has another.
const HERE = "http://here.invalid";

/** A page of this application to go on to after signing in; "/" for anything that is none, or leads elsewhere. */
export function safeNext(next: string | null, siteMap: SiteMap): string {
  // Browsers pass over tabs and line ends in an address, so that what stands around them comes together.
  if (next === null || !next.startsWith("/") || /[\\\s]/.test(next)) return "/";
  const url = URL.parse(next, HERE);
  if (url === null || url.origin !== HERE || !isPage(siteMap, url.pathname)) return "/";
  return url.pathname + url.search;
}

function isPage(siteMap: SiteMap, pathname: string): boolean {
  if (/%(?:[01]|7f|5c|2f)/i.test(pathname) || pathname.startsWith("//")) return false;
  return siteMap(pathname)?.methods.includes("GET") === true;
}
