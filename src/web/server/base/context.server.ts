import { createContext } from "react-router";
import type { Deps, Member, TrayGrant } from "../../../operations/index.server";
import { type Language, languageOf } from "../../../texts/say";
import type { LiveHub } from "./live-hub";
import type { SiteMap } from "./site-map.server";

/** The dependencies of the operations. */
export const depsContext = createContext<Deps>();
/** Where screens subscribe to changes. */
export const liveContext = createContext<LiveHub>();
/** The state of the tray's live changes before anything of it was read. */
export const liveStateContext = createContext<string>();
/** The mark that the page's own scripts carry (CSP). */
export const nonceContext = createContext<string>();
/** The language of whoever asks. */
export const languageContext = createContext<Language>(languageOf([]));
/** Who hears of what went wrong on the server. */
export const problemContext = createContext<(problem: unknown) => void>();
/** Where browsers reach this application, without a slash at the end: what links in mail and invitations begin with. */
export const publicUrlContext = createContext<string>();
/** What stands at which path. */
export const siteMapContext = createContext<SiteMap>();
/** Whether cookies go over TLS only. */
export const secureCookiesContext = createContext<boolean>();
/** Who is signed in; set by the signed-in routes' middleware. */
export const memberContext = createContext<Member>();
/** The trays of the member; set with `grantContext`. */
export const grantsContext = createContext<readonly TrayGrant[]>();
/** The right to look into the tray of the URL; set by the tray routes' middleware. */
export const grantContext = createContext<TrayGrant>();
