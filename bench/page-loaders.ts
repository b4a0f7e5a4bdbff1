import { RouterContextProvider } from "react-router";
import { instant } from "~/core/kernel/instant";
import { liveHub } from "~/main/live-hub";
import type { Deps } from "~/operations/index.server";
import { loader as standingLoader } from "~/web/routes/list/standing";
import { middleware as signedIn } from "~/web/routes/shell/signed-in";
import { loader as trayLoader, middleware as trayMiddleware } from "~/web/routes/shell/tray";
import { depsContext, liveContext, secureCookiesContext } from "~/web/server/base/context.server";
import { setSessionCookie } from "~/web/server/base/session-cookie.server";

/** What the server does for the page of a standing: the middleware of its routes, then their loaders side by side, as the router runs them. */
export function loadersOf(deps: Deps, token: string, slug: string): () => Promise<{ rows: number }> {
  const live = liveHub();
  return async () => {
    const context = new RouterContextProvider();
    context.set(depsContext, deps);
    context.set(liveContext, live);
    context.set(secureCookiesContext, false);
    const cookie =
      (await setSessionCookie({ token, expiresAt: instant(Date.now() + 1_000_000) }, context)).split(";")[0] ?? "";
    const request = new Request(`http://localhost/${slug}/our-move`, { headers: { cookie } });
    const args = { request, context, params: { tray: slug, standing: "our-move" } } as never;
    for (const step of [...signedIn, ...trayMiddleware]) await step(args, (async () => new Response()) as never);
    const [, { lanes }] = await Promise.all([trayLoader(args), standingLoader(args)]);
    return { rows: lanes.reduce((sum, { rows }) => sum + rows.length, 0) };
  };
}
