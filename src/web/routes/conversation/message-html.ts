import sansFaces from "@fontsource-variable/source-sans-3/wght.css?inline";
import sansItalicFaces from "@fontsource-variable/source-sans-3/wght-italic.css?inline";
import serifFaces from "@fontsource-variable/source-serif-4/wght.css?inline";
import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { LETTER_PAGE, readAsHtml } from "../../../operations/index.server";
import { depsContext, grantContext, languageContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/message-html";

// Nothing runs and nothing is fetched but the fonts that ship, whatever the sanitiser may have overlooked.
const policy = (showsRemote: boolean) =>
  `default-src 'none'; img-src data:${showsRemote ? " https: http:" : ""}; font-src 'self'; style-src 'unsafe-inline'; sandbox allow-same-origin allow-popups allow-popups-to-escape-sandbox; frame-ancestors 'self'; base-uri 'none'; form-action 'none'`;

const fontFaces = [sansFaces, sansItalicFaces, serifFaces].join("");
const pair = (light: string, dark: string) => `light-dark(${light},${dark})`;
const { light, dark, link } = LETTER_PAGE;
const PAGE_STYLE = `${fontFaces}:root{color-scheme:light dark}body{margin:0;overflow:hidden;font:15px/1.55 'Source Sans 3 Variable',sans-serif;color:${pair(light.ink, dark.ink)};background:${pair(light.paper, dark.paper)};overflow-wrap:break-word}body>div{overflow-x:auto}body>div>:first-child{margin-top:0}.wide{overflow-x:auto;max-width:100%}table{max-width:100%}img{max-width:100%;height:auto}blockquote{margin:0 0 0 8px;padding-left:12px;border-left:2px solid ${pair("#d8d4c8", "#3a4042")}}pre{white-space:pre-wrap}a{color:${pair(link.light, link.dark)}}summary{cursor:pointer;width:fit-content;margin:8px 0;font:14px/20px 'Source Sans 3 Variable',sans-serif;color:${pair(link.light, link.dark)}}.leads-elsewhere{font-size:12px;color:${pair("#8a3a1c", "#e59a79")};border:1px solid;border-radius:3px;padding:0 4px;white-space:nowrap}`;

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const asksForRemote = new URL(request.url).searchParams.get("pictures") === "shown";
  const safe = id.ok
    ? await readAsHtml(context.get(depsContext), context.get(grantContext), id.value, {
        asksForRemote,
        locale: context.get(languageContext).locale,
      })
    : null;
  if (safe === null) throw data(speak("server.noSuchMessage"), { status: 404 });
  return new Response(
    `<!doctype html><html><head><meta charset="utf-8"><style>${PAGE_STYLE}</style></head><body dir="auto">${safe.html}</body></html>`,
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
