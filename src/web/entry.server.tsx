import "../texts/en/index";
import { Writable } from "node:stream";
import { setImmediate as nextTurn } from "node:timers/promises";
import pLimit from "p-limit";
import { renderToPipeableStream } from "react-dom/server";
import {
  type EntryContext,
  type HandleErrorFunction,
  isRouteErrorResponse,
  type RouterContextProvider,
  ServerRouter,
} from "react-router";
import { nonceContext, problemContext } from "./server/base/context.server";

/** Tells of what a loader, an action or a page threw; a refusal, and a request that its sender gave up, are nobody's problem. */
export const handleError: HandleErrorFunction = (problem, { request, context }) => {
  if (isRouteErrorResponse(problem) && problem.status < 500) return;
  if (!request.signal.aborted) (context as RouterContextProvider).get(problemContext)(problem);
};

const ABORT_MS = 8_000;
// Between two pages whatever the database or a browser has said meanwhile is heard: a decision waits for one page at most
// each time it asks something, and not for all that are to be drawn.
const oneByOne = pLimit(1);

/**
 * Renders a page, whole: nothing in one is waited for, and in pieces of two kilobytes it would cost more to send and to
 * compress than to draw. Its scripts carry the nonce that the response's CSP names.
 */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  context: RouterContextProvider,
): Promise<Response> {
  return oneByOne(async () => {
    await nextTurn();
    return draw(request, status, headers, routerContext, context.get(nonceContext));
  });
}

function draw(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  nonce: string,
): Promise<Response> {
  return new Promise((resolve, reject) => {
    let failed = false;
    const send = () => {
      const pieces: Uint8Array[] = [];
      const body = new Writable({
        write(piece, _encoding, done) {
          pieces.push(piece);
          done();
        },
        final(done) {
          headers.set("Content-Type", "text/html; charset=utf-8");
          resolve(new Response(Buffer.concat(pieces), { headers, status: failed ? 500 : status }));
          done();
        },
      });
      stream.pipe(body);
    };
    const stream = renderToPipeableStream(<ServerRouter context={routerContext} url={request.url} nonce={nonce} />, {
      nonce,
      onAllReady: send,
      onShellError: reject,
      onError: () => {
        failed = true;
      },
    });
    setTimeout(() => stream.abort(), ABORT_MS).unref();
  });
}
