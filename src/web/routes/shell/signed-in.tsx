import { Outlet, redirect } from "react-router";
import { whoComesIn } from "../../../operations/index.server";
import { DecisionsProvider } from "../../screens/deciding/decisions";
import { depsContext, grantsContext, memberContext } from "../../server/base/context.server";
import { sessionToken } from "../../server/base/session-cookie.server";
import type { Route } from "./+types/signed-in";

export const middleware: Route.MiddlewareFunction[] = [
  async ({ request, context }) => {
    const deps = context.get(depsContext);
    const token = await sessionToken(request);
    const entered = token === null ? null : await whoComesIn(deps, token);
    if (entered === null) {
      const { pathname, search } = new URL(request.url);
      throw redirect(`/sign-in?${new URLSearchParams({ next: pathname + search })}`);
    }
    context.set(memberContext, entered.member);
    context.set(grantsContext, entered.grants);
    // What is posted may change them.
    if (request.method === "GET") context.set(depsContext, { ...deps, chosen: entered.chosen });
  },
];

// Without a loader on the server, the middleware would not run for navigations in the browser.
export function loader() {
  return null;
}

// There is nothing in it to load anew, so a server that does not answer leaves this screen and its messages standing.
export function shouldRevalidate() {
  return false;
}

export default function SignedIn() {
  return (
    <DecisionsProvider>
      <Outlet />
    </DecisionsProvider>
  );
}
