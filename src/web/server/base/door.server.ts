import type { Request, RequestHandler, Response } from "express";
import onHeaders from "on-headers";
import { serverTexts } from "../../../texts/en/server";
import { type Said, saidOf } from "../../../texts/said";
import { languageOf, sayIn } from "../../../texts/say";
import { mostBytesTo } from "./body-limits";
import { isFromOurPage } from "./own-origin";
import type { SiteMap } from "./site-map.server";

const LOOKS: ReadonlySet<string> = new Set(["GET", "HEAD"]);
const LINGER_MS = 2_000;

const said = saidOf(serverTexts);

function refuse(request: Request, response: Response, status: number, why: Said): void {
  const say = sayIn(languageOf(request.acceptsLanguages()).locale);
  response.status(status).type("text/plain").set("Cache-Control", "no-store").send(say(why));
}

/**
 * The first that a request meets, before anything of it is read: a host that is none, and whatever would change
 * something and does not come from a page of ours.
 */
export function ownPagesOnly(publicUrl: () => string): RequestHandler {
  return (request, response, next) => {
    closeAfterHalf(request, response);
    const address = addressOf(request);
    if (address === null) return refuse(request, response, 400, said("server.malformedAddress"));
    if (LOOKS.has(request.method)) return next();
    const sender = { origin: request.get("origin"), fetchSite: request.get("sec-fetch-site") };
    if (isFromOurPage(sender, [address.origin, new URL(publicUrl()).origin])) return next();
    refuse(request, response, 403, said("server.notFromAPage"));
  };
}

/** Refuses what no route answers, bodies that say that they are too large, and control characters in addresses. */
export function knownPlacesOnly(siteMap: SiteMap): RequestHandler {
  return (request, response, next) => {
    const address = addressOf(request);
    if (address === null || hasControls(address))
      return refuse(request, response, 400, said("server.malformedAddress"));
    const place = siteMap(address.pathname);
    if (LOOKS.has(request.method) && (place === null || place.methods.includes("GET"))) return next();
    if (place === null) return refuse(request, response, 404, said("server.nothingAtThisAddress"));
    if (!place.methods.includes(request.method)) {
      response.set("Allow", place.methods.join(", "));
      return refuse(request, response, 405, said("server.addressDoesNotAnswer", { method: request.method }));
    }
    if (Number(request.get("content-length")) > mostBytesTo(place.routeId))
      return refuse(request, response, 413, said("server.tooLargeForHere"));
    next();
  };
}

function addressOf(request: Request): URL | null {
  const { host = "" } = request.headers;
  // What a URL would take for a user, a path or a query is no host (RFC 9110 7.2).
  if (!/^[\w.:[\]-]+$/.test(host) || !request.originalUrl.startsWith("/")) return null;
  return URL.parse(`${request.protocol}://${request.host ?? host}${request.originalUrl}`);
}

// biome-ignore lint/suspicious/noControlCharactersInRegex: it is they who are looked for
const CONTROLS = /[\x00-\x08\x0b\x0c\x0e-\x1f\x7f]/;

function hasControls({ pathname, searchParams }: URL): boolean {
  try {
    // biome-ignore lint/suspicious/noControlCharactersInRegex: it is they who are looked for
    if (/[\x00-\x1f\x7f]/.test(decodeURIComponent(pathname))) return true;
  } catch {
    return true;
  }
  return [...searchParams].some(([name, value]) => CONTROLS.test(name) || CONTROLS.test(value));
}

// Whoever is answered while still sending is not read to the end: the connection is closed, a moment after the answer,
// so that it arrives.
function closeAfterHalf(request: Request, response: Response): void {
  onHeaders(response, () => {
    if (request.complete) return;
    response.setHeader("Connection", "close");
    const { socket } = request;
    socket.destroySoon = () => {
      socket.end();
      setTimeout(() => socket.destroy(), LINGER_MS).unref();
    };
  });
}
