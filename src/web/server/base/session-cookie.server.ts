import { createCookie, type RouterContextProvider } from "react-router";
import { dateOf } from "../../../core/kernel/instant";
import type { Session } from "../../../operations/index.server";
import { secureCookiesContext } from "./context.server";

const cookie = createCookie("tray-session", { path: "/", httpOnly: true, sameSite: "lax" });

type Context = Readonly<RouterContextProvider>;

/** The token of the session that a request carries; null when it carries none. */
export async function sessionToken(request: Request): Promise<string | null> {
  const token: unknown = await cookie.parse(request.headers.get("cookie"));
  return typeof token === "string" && token !== "" ? token : null;
}

/** The header that starts a session in the browser. */
export function setSessionCookie(session: Session, context: Context): Promise<string> {
  return cookie.serialize(session.token, {
    secure: context.get(secureCookiesContext),
    expires: dateOf(session.expiresAt),
  });
}

/** The header that ends it. */
export function dropSession(context: Context): Promise<string> {
  return cookie.serialize("", { secure: context.get(secureCookiesContext), maxAge: 0 });
}
