import { matchRoutes, type RouteObject, type ServerBuild } from "react-router";

/** What stands at an address: the methods that it answers, and the id of its route ("routes/decide"). */
export type Place = { readonly routeId: string; readonly methods: readonly string[] };

/** Finds what stands at a path of this application; null where nothing does. */
export type SiteMap = (pathname: string) => Place | null;

type Routes = ServerBuild["routes"];

/** The site map of the built application. */
export function siteMapOf(routes: Routes): SiteMap {
  const tree = childrenOf(routes, undefined);
  return (pathname) => {
    const leaf = matchRoutes(tree, pagePath(pathname))?.at(-1)?.route;
    const route = leaf?.id === undefined ? undefined : routes[leaf.id];
    return route === undefined ? null : { routeId: route.id, methods: methodsOf(route.module) };
  };
}

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
