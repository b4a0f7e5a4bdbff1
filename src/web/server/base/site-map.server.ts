import { matchRoutes, type RouteObject, type ServerBuild } from "react-router";

/** What stands at an address: the methods that it answers, and the id of its route ("routes/deciding/decide"). */
export type Place = { readonly routeId: string; readonly methods: readonly string[] };

/** Finds what stands at a path of this application; null where nothing does. */
export type SiteMap = (pathname: string) => Place | null;

type Routes = ServerBuild["routes"];

/** The site map of the built application. */
export function siteMapOf(routes: Routes): SiteMap {
  const tree = childrenOf(routes, undefined);
  const known = new Map<string, Place | null>();
  return (pathname) => {
    const shape = pagePath(pathname).replace(ID, SOME_ID);
    const found = known.get(shape);
    if (found !== undefined) return found;
    const leaf = matchRoutes(tree, shape)?.at(-1)?.route;
    const route = leaf?.id === undefined ? undefined : routes[leaf.id];
    const place = route === undefined ? null : { routeId: route.id, methods: methodsOf(route.module) };
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(shape, place);
    return place;
  };
}

// To match takes the router milliseconds, as it ranks all routes anew; which id stands in an address makes no difference.
const ID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;
const SOME_ID = "00000000-0000-0000-0000-000000000000";
const MOST_KNOWN = 1_000;

function childrenOf(routes: Routes, parentId: string | undefined): RouteObject[] {
  return Object.values(routes)
    .filter(
      (route) => route !== undefined && route.id !== "root" && (route.parentId ?? "root") === (parentId ?? "root"),
    )
    .flatMap((route): RouteObject[] => {
      if (route === undefined) return [];
      const { id, path } = route;
      const given = path === undefined ? { id } : { id, path };
      return route.index ? [{ ...given, index: true }] : [{ ...given, children: childrenOf(routes, id) }];
    });
}

// A page is looked at even where it loads nothing; a route without one answers what it has.
function methodsOf(module: NonNullable<Routes[string]>["module"]): readonly string[] {
  const looks = module.default !== undefined || module.loader !== undefined;
  return [...(looks ? ["GET", "HEAD"] : []), ...(module.action === undefined ? [] : ["POST"])];
}

// The router asks for the data of a page under its path with ".data" after it, and "_root.data" or "_.data" for an index.
function pagePath(pathname: string): string {
  if (pathname === "/_root.data") return "/";
  return pathname.replace(/(?:\/_)?\.data$/, "") || "/";
}
