import { shellTexts } from "../texts/en/shell";
import { useSay } from "./ui/texts/use-say";
import "./styles.css";
import type { ReactNode } from "react";
import {
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  useRouteLoaderData,
} from "react-router";
import { languageOf } from "../texts/say";
import type { Route } from "./+types/root";
import { languageContext, nonceContext } from "./server/base/context.server";
import { Problem } from "./ui/problem";
import { LocaleContext } from "./ui/texts/use-say";

// Pages and their data are of whoever is signed in: nothing on the way or in the browser keeps them.
export const middleware: Route.MiddlewareFunction[] = [
  async (_args, next) => {
    const response = await next();
    if (!response.headers.has("Cache-Control")) response.headers.set("Cache-Control", "no-store");
    return response;
  },
];

export function loader({ context }: Route.LoaderArgs) {
  return { nonce: context.get(nonceContext), language: context.get(languageContext) };
}

export function Layout({ children }: { children: ReactNode }) {
  const root = useRouteLoaderData<typeof loader>("root");
  const nonce = root?.nonce;
  const { locale, dir } = root?.language ?? languageOf([]);
  return (
    <html lang={locale} dir={dir}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/favicon.svg" type="image/svg+xml" />
        <Meta />
        <Links />
      </head>
      <body>
        <LocaleContext value={locale}>{children}</LocaleContext>
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

// The nonce of the page that was loaded first is the one that counts.
export function shouldRevalidate() {
  return false;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const say = useSay(shellTexts);
  if (isRouteErrorResponse(error)) {
    const said = typeof error.data === "string" ? error.data : "";
    return (
      <Problem
        title={error.status === 404 ? say("shell.notHere") : say("shell.thisDidNotWork")}
        text={said || say("shell.thereIsNothingAtThis")}
      />
    );
  }
  return <Problem title={say("shell.somethingBroke")} text={say("shell.itIsNotYourDoing")} />;
}
