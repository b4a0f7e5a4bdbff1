import { data, type MiddlewareFunction } from "react-router";
import { UUID } from "../../../core/kernel/ids";
import { once } from "../../../operations/index.server";
import { depsContext, grantContext } from "./context.server";
import { speak } from "./say.server";

// What an answer carries beside its body; the rest is made for each connection.
const KEPT_HEADERS = ["content-type", "location", "x-remix-response", "x-remix-reload-document", "x-remix-redirect"];

const NOT_ANSWERED = {
  open: "server.thisWasSentBeforeAnd",
  foreign: "server.thisWasSentBeforeBy",
} as const;

/** What is posted with `?command=` and an id is done once, however often it arrives; the answer is that of the first time. */
export const onceForEachCommand: MiddlewareFunction<Response> = async ({ request, context }, next) => {
  const id = new URL(request.url).searchParams.get("command");
  if (request.method !== "POST" || id === null) return next();
  if (!UUID.test(id)) throw data(speak("server.thatIsNoIdOf"), { status: 400 });
  const answered = await once(context.get(depsContext), context.get(grantContext), id, async () => {
    const response = await next();
    const headers = KEPT_HEADERS.flatMap((name) => {
      const value = response.headers.get(name);
      return value === null ? [] : [[name, value] as const];
    });
    const body = new Uint8Array(await response.arrayBuffer());
    return { status: response.status, headers: Object.fromEntries(headers), body };
  });
  if (!answered.ok) throw data(speak(NOT_ANSWERED[answered.error]), { status: 409 });
  const { status, headers, body } = answered.value;
  return new Response(body.byteLength === 0 ? null : new Uint8Array(body), { status, headers });
};
