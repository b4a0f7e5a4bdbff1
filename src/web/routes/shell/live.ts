import type { ConversationId } from "../../../core/kernel/ids";
import { whoComesIn } from "../../../operations/index.server";
import { depsContext, grantContext, liveContext, memberContext } from "../../server/base/context.server";
import { sessionToken } from "../../server/base/session-cookie.server";
import type { Route } from "./+types/live";

// Proxies and browsers drop a connection that says nothing for a minute.
const HEARTBEAT_MS = 25_000;

/**
 * Server-sent events: one `change` whenever something in the tray is no longer as it was, with the ids or null for
 * anything and the state since as its id, one `presence` when only who has them open is another; at once what changed since
 * the page was read (`seen`), or since the line was lost.
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
      const sayChanged = (ids: readonly ConversationId[] | null) =>
        say(`event: change\nid: ${live.state(tray.id)}\ndata: ${JSON.stringify(ids)}\n\n`);
      const heartbeat = setInterval(() => say(": still here\n\n"), HEARTBEAT_MS);
      const unsubscribe = live.subscribe({
        trayId: tray.id,
        memberId,
        mayStay,
        hear: ({ conversationIds, only }) => {
          if (only === undefined) sayChanged(conversationIds);
          else say(`event: ${only}\ndata: ${JSON.stringify(conversationIds)}\n\n`);
        },
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
      // A line that was lost says itself where it was.
      const seen = request.headers.get("Last-Event-ID") ?? new URL(request.url).searchParams.get("seen");
      const missed = live.changedSince(tray.id, seen ?? "");
      if (missed === null || missed.length > 0) sayChanged(missed);
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
