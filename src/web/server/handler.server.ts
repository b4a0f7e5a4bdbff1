import { createRequestHandler } from "@react-router/express";
import type { RequestHandler } from "express";
import { RouterContextProvider, type ServerBuild } from "react-router";
import type { Deps } from "../../operations/index.server";
import { depsContext, liveContext, nonceContext, problemContext, secureCookiesContext } from "./context.server";
import type { LiveHub } from "./live-hub";

export type WebHandlerOptions = {
  readonly deps: Deps;
  readonly live: LiveHub;
  readonly secureCookies: boolean;
  readonly onProblem: (problem: unknown) => void;
};

/** Answers the requests for pages and data; `response.locals.nonce` is the mark for the page's scripts. */
export function webHandler(options: WebHandlerOptions): RequestHandler {
  return createRequestHandler({
    build: () => import("virtual:react-router/server-build") as Promise<ServerBuild>,
    getLoadContext(_request, response) {
      const context = new RouterContextProvider();
      context.set(depsContext, options.deps);
      context.set(liveContext, options.live);
      context.set(secureCookiesContext, options.secureCookies);
      context.set(problemContext, options.onProblem);
      context.set(nonceContext, response.locals.nonce);
      return context;
    },
  });
}
