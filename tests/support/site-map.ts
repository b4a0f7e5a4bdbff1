import { readFileSync } from "node:fs";
import { join } from "node:path";
import siteMap from "~/web/routes";

/** A route of the application: its path with its parameters, its file, what stands above it, and what it answers. */
export type Place = {
  readonly path: string;
  readonly file: string;
  readonly above: readonly string[];
  readonly methods: readonly ("GET" | "POST")[];
};

type Entry = { readonly path?: string; readonly file: string; readonly children?: Entry[] };

/** Every route of the site map: a new one is among them without anything being done. */
export async function everyPlace(): Promise<Place[]> {
  return placesOf((await siteMap) as Entry[]);
}

function placesOf(entries: readonly Entry[], path = "", above: readonly string[] = []): Place[] {
  return entries.flatMap((entry) => {
    const own = entry.path === undefined ? path : `${path}/${entry.path}`;
    const place = { path: own, file: entry.file, above, methods: methodsOf(entry.file) };
    return [place, ...placesOf(entry.children ?? [], own, [...above, entry.file])];
  });
}

function methodsOf(file: string): Place["methods"] {
  const source = readFileSync(join("src/web", file), "utf8");
  const looks = /export (?:async )?function loader\b|export default /.test(source);
  const acts = /export (?:async )?function action\b/.test(source);
  return [...(looks ? ["GET" as const] : []), ...(acts ? ["POST" as const] : [])];
}
