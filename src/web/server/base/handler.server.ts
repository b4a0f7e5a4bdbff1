import { createRequestHandler } from "@react-router/express";
import express, { type RequestHandler } from "express";
import { RouterContextProvider, type ServerBuild } from "react-router";
import type { Deps } from "../../../operations/index.server";
import { languageOf } from "../../../texts/say";
import {
  depsContext,
  languageContext,
  liveContext,
  nonceContext,
  problemContext,
  publicUrlContext,
  secureCookiesContext,
  siteMapContext,
} from "./context.server";
import { deviceOf } from "./device";
import { knownPlacesOnly } from "./door.server";
import type { LiveHub } from "./live-hub";
import { speaking } from "./say.server";
import { siteMapOf } from "./site-map.server";

export type WebHandlerOptions = {
  readonly deps: Deps;
  readonly live: LiveHub;
  readonly secureCookies: boolean;
  /** Where browsers reach this, as it was set; never what a request says of itself. */
  readonly publicUrl: () => string;
  readonly onProblem: (problem: unknown) => void;
};

export { ownPagesOnly } from "./door.server";

/** Answers the requests for pages and data; `response.locals.nonce` is the mark for the page's scripts. */
export async function webHandler(options: WebHandlerOptions): Promise<RequestHandler> {
  const build = (await import("virtual:react-router/server-build")) as ServerBuild;
  const siteMap = siteMapOf(build.routes);
  const pages = createRequestHandler({
    build,
    getLoadContext(request, response) {
      const context = new RouterContextProvider();
      const from = { address: request.ip ?? "", device: deviceOf(request.get("user-agent") ?? "") };
      context.set(depsContext, { ...options.deps, from });
      context.set(liveContext, options.live);
      context.set(secureCookiesContext, options.secureCookies);
      context.set(publicUrlContext, options.publicUrl());
      context.set(siteMapContext, siteMap);
      context.set(problemContext, options.onProblem);
      context.set(nonceContext, response.locals.nonce);
      context.set(languageContext, languageOf(request.acceptsLanguages()));
      return context;
    },
  });
  const inTheirLanguage: RequestHandler = (request, _response, next) =>
    speaking(languageOf(request.acceptsLanguages()).locale, next);
  return express.Router().use(knownPlacesOnly(siteMap), inTheirLanguage, pages);
}
