import { randomBytes } from "node:crypto";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { fileURLToPath } from "node:url";
import compression from "compression";
import express from "express";
import helmet from "helmet";
import type { Logger } from "pino";
import type { Deps } from "../operations/index.server";
import type { WebHandlerOptions } from "../web/server/handler.server";
import type { LiveHub } from "../web/server/live-hub";
import { type Config, runAsInProduction } from "./config";

export type HttpServer = { readonly port: number; readonly close: () => Promise<void> };

const CLIENT_FILES = fileURLToPath(new URL("../../build/client", import.meta.url));
const SERVER_BUILD = new URL("../../build/server/index.js", import.meta.url);
// A message as it was sent has a policy of its own, stricter but for pictures that were asked for. With two, both would hold.
const IS_MAIL = /\/messages\/[^/]+\/html$/;
const NONCE_BYTES = 18;

type ServerBuild = { readonly webHandler: (options: WebHandlerOptions) => express.RequestHandler };

/** Serves the built application. */
export async function startHttpServer(
  options: Config["http"],
  deps: Deps,
  live: LiveHub,
  log: Pick<Logger, "error">,
): Promise<HttpServer> {
  runAsInProduction();
  const { webHandler }: ServerBuild = await import(SERVER_BUILD.href);
  const app = express();
  app.disable("x-powered-by");
  if (options.trustProxy) app.set("trust proxy", 1);
  app.get("/healthz", (_request, response) => void response.type("text").send("ok"));
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(NONCE_BYTES).toString("base64");
    next();
  });
  const [ofPages, ofMail] = [securityHeaders(options.secureCookies), helmet({ contentSecurityPolicy: false })];
  app.use((request, response, next) => (IS_MAIL.test(request.path) ? ofMail : ofPages)(request, response, next));
  app.use(compression());
  // A page of before an update asks for what is gone; it is no page to sign in for.
  app.use("/assets", express.static(`${CLIENT_FILES}/assets`, { immutable: true, maxAge: "1y", fallthrough: false }));
  app.use(express.static(CLIENT_FILES, { maxAge: "1h" }));
  app.use(webHandler({ deps, live, secureCookies: options.secureCookies, onProblem: (problem) => log.error(problem) }));
  const server = createServer(app);
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(options.port, options.host, resolve);
  });
  return {
    port: (server.address() as AddressInfo).port,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeIdleConnections();
      }),
  };
}

function securityHeaders(secure: boolean): express.RequestHandler {
  return helmet({
    strictTransportSecurity: secure,
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
