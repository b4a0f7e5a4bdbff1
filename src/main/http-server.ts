import { randomBytes } from "node:crypto";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { fileURLToPath } from "node:url";
import compression from "compression";
import express from "express";
import helmet from "helmet";
import type { Logger } from "pino";
import { type Deps, databaseAnswers } from "../operations/index.server";
import type { WebHandlerOptions } from "../web/server/base/handler.server";
import type { LiveHub } from "../web/server/base/live-hub";
import { type Config, runAsInProduction } from "./config";

export type HttpServer = { readonly port: number; readonly server: Server; readonly close: () => Promise<void> };

const CLIENT_FILES = fileURLToPath(new URL("../../build/client", import.meta.url));
const SERVER_BUILD = new URL("../../build/server/index.js", import.meta.url);
// A message as it was sent has a policy of its own, stricter but for pictures that were asked for. With two, both would hold.
const IS_MAIL = /\/messages\/[^/]+\/html$/;
const NONCE_BYTES = 18;
// With none at all, browsers say "null" for the origin of a form.
const REFERRER = { policy: "same-origin" } as const;
const HEALTH_PATIENCE_MS = 2_000;

// Compressing an answer that never ends would leave a listener behind at every word of it.
const IS_LIVE = /\/live$/;

type ServerBuild = {
  readonly webHandler: (options: WebHandlerOptions) => Promise<express.RequestHandler>;
  readonly ownPagesOnly: (publicUrl: () => string) => express.RequestHandler;
};

/**
 * Serves the built application. Where others share its port, it is told where browsers reach it, and listens on a port of
 * its own on loopback beside.
 */
export async function startHttpServer(
  options: Config["http"],
  deps: Deps,
  live: LiveHub,
  log: Pick<Logger, "error">,
  sharedPort: (() => number) | null = null,
): Promise<HttpServer> {
  runAsInProduction();
  const { webHandler, ownPagesOnly }: ServerBuild = await import(SERVER_BUILD.href);
  const app = express();
  const server = createServer(app);
  const portNow = () => (server.address() as AddressInfo).port;
  const publicUrl = () => options.publicUrl ?? `http://${options.host}:${(sharedPort ?? portNow)()}`;
  app.disable("x-powered-by");
  if (options.trustProxy) app.set("trust proxy", 1);
  app.get("/healthz", healthOf(deps));
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(NONCE_BYTES).toString("base64");
    next();
  });
  const [ofPages, ofMail] = [
    securityHeaders(options.secureCookies),
    helmet({ contentSecurityPolicy: false, referrerPolicy: REFERRER }),
  ];
  app.use((request, response, next) => (IS_MAIL.test(request.path) ? ofMail : ofPages)(request, response, next));
  app.use(ownPagesOnly(publicUrl));
  // Half of the work for a tenth more bytes.
  const compress = compression({ level: 3 });
  app.use((request, response, next) => (IS_LIVE.test(request.path) ? next() : compress(request, response, next)));
  // A page of before an update asks for what is gone; it is no page to sign in for.
  app.use("/assets", express.static(`${CLIENT_FILES}/assets`, { immutable: true, maxAge: "1y", fallthrough: false }));
  app.use(express.static(CLIENT_FILES, { maxAge: "1h" }));
  const { secureCookies } = options;
  app.use(await webHandler({ deps, live, secureCookies, publicUrl, onProblem: (problem) => log.error(problem) }));
  app.use(plainProblem(log));
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    if (sharedPort === null) server.listen(options.port, options.host, resolve);
    else server.listen(0, "127.0.0.1", resolve);
  });
  return {
    port: portNow(),
    server,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
      }),
  };
}

/** Ready only with a database that answers: whoever balances between several is told so, and so is whoever watches. */
function healthOf(deps: Deps): express.RequestHandler {
  return async (_request, response) => {
    response.type("text").set("Cache-Control", "no-store");
    const answers = await databaseAnswers(deps, HEALTH_PATIENCE_MS);
    response.status(answers ? 200 : 503).send(answers ? "ok" : "The database does not answer.");
  };
}

/** What went wrong outside the pages: a file that there is not, or something to be told of. */
function plainProblem(log: Pick<Logger, "error">): express.ErrorRequestHandler {
  return (problem, _request, response, next) => {
    const status = Number(problem?.status ?? 500);
    if (status >= 500) log.error(problem);
    if (response.headersSent) return next(problem);
    const words = status < 500 ? "There is nothing at this address." : "Something broke; nothing was lost.";
    response.status(status).type("text/plain").send(words);
  };
}

function securityHeaders(secure: boolean): express.RequestHandler {
  return helmet({
    strictTransportSecurity: secure,
    referrerPolicy: REFERRER,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        "default-src": ["'self'"],
        "script-src": ["'self'", (_request, response) => `'nonce-${(response as express.Response).locals.nonce}'`],
        "style-src": ["'self'", "'unsafe-inline'"],
        "img-src": ["'self'", "data:"],
        "font-src": ["'self'"],
        "connect-src": ["'self'"],
        "frame-src": ["'self'"],
        "object-src": ["'none'"],
        "base-uri": ["'none'"],
        "form-action": ["'self'"],
        "frame-ancestors": ["'self'"],
      },
    },
  });
}
