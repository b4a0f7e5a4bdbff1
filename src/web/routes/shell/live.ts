import { whoComesIn } from "../../../operations/index.server";
import { depsContext, grantContext, liveContext, memberContext } from "../../server/base/context.server";
import { sessionToken } from "../../server/base/session-cookie.server";
import type { Route } from "./+types/live";

// Proxies and browsers drop a connection that says nothing for a minute.
const HEARTBEAT_MS = 25_000;

/**
 * Server-sent events: one `change` whenever something in the tray is no longer as it was, with the ids or null for
 * anything, one `presence` when only who has them open is another; at once what changed since the page was read (`seen`).
 */
export function loader({ request, context }: Route.LoaderArgs) {
  const { tray } = context.get(grantContext);
  const deps = context.get(depsContext);
  const { id: memberId } = context.get(memberContext);
  const mayStay = async () => {
    const token = await sessionToken(request);
    const entered = token === null ? null : await whoComesIn(deps, token);
    return entered?.grants.some((grant) => grant.tray.id === tray.id) === true;
  };
  const live = context.get(liveContext);
  const encoder = new TextEncoder();
  let leave = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => controller.enqueue(encoder.encode(text));
      const heartbeat = setInterval(() => say(": still here\n\n"), HEARTBEAT_MS);
      const unsubscribe = live.subscribe({
        trayId: tray.id,
        memberId,
        mayStay,
        hear: ({ conversationIds, only = "change" }) =>
          say(`event: ${only}\ndata: ${JSON.stringify(conversationIds)}\n\n`),
        end: () => {
          leave();
          controller.close();
        },
      });
      leave = () => {
        clearInterval(heartbeat);
        unsubscribe();
      };
      request.signal.addEventListener("abort", leave);
      say("retry: 1000\n\n");
      const missed = live.changedSince(tray.id, new URL(request.url).searchParams.get("seen") ?? "");
      if (missed === null || missed.length > 0) say(`event: change\ndata: ${JSON.stringify(missed)}\n\n`);
    },
    cancel: () => leave(),
  });
  return new Response(body, {
    headers: {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-cache, no-transform",
      "X-Accel-Buffering": "no",
    },
  });
}
