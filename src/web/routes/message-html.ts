import { data } from "react-router";
import { type MessageId, readId } from "../../core/kernel/ids";
import { readAsHtml } from "../../operations/index.server";
import { depsContext, grantContext } from "../server/context.server";
import type { Route } from "./+types/message-html";

// Mail brings its own colours, made for paper: the frame keeps a light ground in the dark theme as well.
// Nothing runs and nothing is fetched, whatever the sanitiser may have overlooked.
const policy = (showsRemote: boolean) =>
  `default-src 'none'; img-src data:${showsRemote ? " https: http:" : ""}; style-src 'unsafe-inline'; sandbox allow-same-origin allow-popups allow-popups-to-escape-sandbox; frame-ancestors 'self'; base-uri 'none'; form-action 'none'`;

const PAGE_STYLE =
  "body{margin:0;font:15px/1.55 'Source Sans 3 Variable',system-ui,sans-serif;color:#22282b;background:#fbfaf6;overflow-wrap:anywhere}img{max-width:100%;height:auto}table{max-width:100%}blockquote{margin:0 0 0 8px;padding-left:12px;border-left:2px solid #d8d4c8}a{color:#0e5a66}.leads-elsewhere{font-size:12px;color:#8a3a1c;border:1px solid #8a3a1c;border-radius:3px;padding:0 4px;white-space:nowrap}";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const asksForRemote = new URL(request.url).searchParams.get("pictures") === "shown";
  const safe = id.ok
    ? await readAsHtml(context.get(depsContext), context.get(grantContext), id.value, asksForRemote)
    : null;
  if (safe === null) throw data("There is no such message.", { status: 404 });
  return new Response(
    `<!doctype html><html><head><meta charset="utf-8"><style>${PAGE_STYLE}</style></head><body>${safe.html}</body></html>`,
    {
      headers: {
        "Content-Type": "text/html; charset=utf-8",
        "Content-Security-Policy": policy(safe.showsRemote),
        "Cache-Control": "private, no-cache",
        "X-Content-Type-Options": "nosniff",
        "Referrer-Policy": "no-referrer",
      },
    },
  );
}
