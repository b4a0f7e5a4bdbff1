import { lookup } from "node:dns";
import { request as plainRequest } from "node:http";
import { type RequestOptions, request as secureRequest } from "node:https";
import type { LookupFunction } from "node:net";
import ipaddr from "ipaddr.js";
import type { LeavingOutcome, ListLeaver } from "../../core/ports";
import { writingTexts } from "../../texts/en/writing";
import { type Said, saidOf } from "../../texts/said";

const TIMEOUT_MS = 10_000;
const BODY = "List-Unsubscribe=One-Click";

/**
 * True for an address of this machine or of a network that is not the public one (the special registries of IANA, RFC 6890):
 * a link in a mail must not make this server knock at doors of its own house. What carries an address of IPv4 within one of
 * IPv6 (mapped, translated, 6to4, Teredo) leads wherever a gateway takes it, and counts as inside.
 */
export function isInside(address: string): boolean {
  if (!ipaddr.isValid(address)) return true;
  return ipaddr.process(address).range() !== "unicast";
}

const said = saidOf(writingTexts);

const INSIDE_PROBLEM = "EINSIDE";

/** Looks a name up and refuses it where any of its addresses lies inside: what is connected to is what was checked. */
const lookUpOutside: LookupFunction = (host, options, callback) => {
  lookup(host, { ...options, all: true }, (problem, addresses) => {
    const [first] = addresses ?? [];
    if (problem !== null || first === undefined) return callback(problem ?? new Error("no address"), "", 4);
    if (addresses.some(({ address }) => isInside(address))) {
      return callback(Object.assign(new Error("an address inside"), { code: INSIDE_PROBLEM }), "", 4);
    }
    if (options.all === true) return callback(null, addresses);
    callback(null, first.address, first.family);
  });
};

/**
 * Leaves lists by one POST (RFC 8058 section 3.2): without cookies, without anything else that says who we are, and
 * following no redirection. `via` sends every request to a stand-in instead, which is told the host that was meant.
 */
export function oneClickLeaver(via: string | null): ListLeaver {
  return {
    async leave(url) {
      const target = new URL(url);
      if (target.protocol !== "https:") return { kind: "refused", reason: said("writing.siteIsNotSafe") };
      try {
        return outcomeOf(await (via === null ? postOutside(target) : postVia(new URL(via), target)));
      } catch (problem) {
        return {
          kind: "not-now",
          reason: PROBLEMS[(problem as { code?: string }).code ?? ""] ?? said("writing.siteNotReached"),
        };
      }
    },
  };
}

const PROBLEMS: Readonly<Record<string, Said>> = {
  ENOTFOUND: said("writing.noSiteOfThatName"),
  ETIMEDOUT: said("writing.siteDidNotAnswer"),
  [INSIDE_PROBLEM]: said("writing.siteIsOurs"),
};

function outcomeOf(status: number): LeavingOutcome {
  if (status >= 200 && status < 300) return { kind: "left" };
  if (status >= 500 || status === 429) return { kind: "not-now", reason: said("writing.siteAnswered", { status }) };
  return { kind: "refused", reason: said("writing.siteAnswered", { status }) };
}

const HEADERS = { "Content-Type": "application/x-www-form-urlencoded", "Content-Length": String(BODY.length) };

function postOutside(target: URL): Promise<number> {
  // A bare address is never looked up, so it has to be judged here.
  const bare = target.hostname.replace(/^\[|\]$/g, "");
  if (/^[\d.]+$|:/.test(bare) && isInside(bare)) {
    return Promise.reject(Object.assign(new Error("an address inside"), { code: INSIDE_PROBLEM }));
  }
  return statusOf((options) => secureRequest(target, { ...options, lookup: lookUpOutside, headers: HEADERS }));
}

function postVia(via: URL, target: URL): Promise<number> {
  const url = new URL(`${target.pathname}${target.search}`, via);
  return statusOf((options) => plainRequest(url, { ...options, headers: { ...HEADERS, Host: target.host } }));
}

function statusOf(begin: (options: RequestOptions) => ReturnType<typeof secureRequest>): Promise<number> {
  return new Promise((resolve, reject) => {
    const request = begin({ method: "POST", agent: false, signal: AbortSignal.timeout(TIMEOUT_MS) });
    request.on("response", (response) => {
      // What it says is of no interest; that it answered is.
      response.destroy();
      resolve(response.statusCode ?? 0);
    });
    request.on("error", (problem: Error & { code?: string }) =>
      reject(problem.name === "AbortError" ? Object.assign(problem, { code: "ETIMEDOUT" }) : problem),
    );
    request.end(BODY);
  });
}
