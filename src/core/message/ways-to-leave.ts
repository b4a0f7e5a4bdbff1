import { type EmailAddress, readEmailAddress } from "../kernel/email-address";
import { readMailto } from "./mailto";

/** How one leaves a mailing list, as its mail says. */
export type WaysToLeave = {
  /** Where one POST of `List-Unsubscribe=One-Click` leaves it at once (RFC 8058); null when the sender offers none. */
  readonly atOnce: string | null;
  /** The message that leaves it (RFC 2369 with RFC 6068); null when there is none. */
  readonly mail: { readonly to: EmailAddress; readonly subject: string; readonly body: string } | null;
  /** A page where a person can leave it by hand; null when there is none. */
  readonly page: string | null;
};

/** The identifier in a List-Id field, without its description (RFC 2919 section 2), in lower case; the text itself where it has none. */
export function listIdIn(field: string): string {
  return (/<([^<>]+)>/.exec(field)?.[1] ?? field).trim().toLowerCase();
}

/** What a list calls itself: the description in its List-Id field (RFC 2919 section 2); null where it has none. */
export function listNameIn(field: string): string | null {
  const described = /^\s*"?([^"<]{1,200}?)"?\s*<[^<>]+>/.exec(field)?.[1]?.trim() ?? "";
  return described === "" ? null : described;
}

// What is longer was not written for a person to click or for a server to be asked.
const MAX_URI_CHARACTERS = 2_000;

/**
 * The ways to leave a list. `uris` are those of the List-Unsubscribe field in the order of the sender's preference
 * (RFC 2369 section 2), `saysOneClick` whether List-Unsubscribe-Post asks for one click (RFC 8058 section 3.1, which
 * allows an https URI only). Null when there is no way that can be used.
 */
export function waysToLeave(uris: readonly string[], saysOneClick: boolean): WaysToLeave | null {
  const usable = uris.filter((uri) => uri.length <= MAX_URI_CHARACTERS).flatMap((uri) => urlOf(uri) ?? []);
  const web = usable.filter(({ protocol }) => protocol === "https:" || protocol === "http:");
  const secure = web.find(({ protocol }) => protocol === "https:");
  const mail = usable.flatMap((url) => (url.protocol === "mailto:" ? (mailOf(url) ?? []) : []))[0] ?? null;
  const atOnce = saysOneClick && secure !== undefined ? secure.href : null;
  const page = (secure ?? web[0])?.href ?? null;
  return atOnce === null && mail === null && page === null ? null : { atOnce, mail, page };
}

function urlOf(uri: string): URL | null {
  return URL.canParse(uri) ? new URL(uri) : null;
}

// RFC 6068; what goes out by itself goes to one address.
function mailOf(url: URL): WaysToLeave["mail"] {
  const asked = readMailto(url.href);
  const to = asked === null ? null : readEmailAddress(asked.to);
  if (asked === null || to === null) return null;
  const oneLine = asked.body.replace(/\n+/g, " ").trim();
  return { to, subject: asked.subject || "unsubscribe", body: oneLine || "unsubscribe" };
}
