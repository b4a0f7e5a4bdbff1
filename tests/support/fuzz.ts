import { readFileSync } from "node:fs";
import { join } from "node:path";
import { randomFrom } from "./random";
import type { Place } from "./site-map";

/** A request that no page of ours sends, and what it is about. */
export type OddRequest = {
  readonly method: string;
  readonly path: string;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string | null;
};

/** Values of this world that stand where a form or an address wants one. */
export type KnownValues = Readonly<Record<string, readonly string[]>>;

const WEB = "src/web";
const BOUNDARY = "----odd";

const UNKNOWN_ID = "01900000-0000-7000-8000-00000000dead";
// What breaks what was written without it in mind.
const ODD = [
  "",
  " ",
  "\0",
  "a\0b",
  "%00",
  "0",
  "-1",
  "1e999",
  "2147483648",
  "9223372036854775808",
  "NaN",
  "null",
  "undefined",
  "[]",
  "{}",
  '{"__proto__":{"a":1}}',
  '[{"kind":"folder"}]',
  "[[[[[[[[[[[[]]]]]]]]]]]]",
  "__proto__",
  "constructor",
  "toString",
  "hasOwnProperty",
  "00000000-0000-0000-0000-000000000000",
  UNKNOWN_ID,
  "01900000:0000:7000:8000:00000000dead",
  "{01900000-0000-7000-8000-00000000dead}",
  "01900000-0000-7000-8000-00000000DEAD",
  "2026-02-30",
  "2026-11-24",
  "+275760-09-13T00:00:00.001Z",
  "0000-01-01T00:00:00Z",
  "-271821-04-20T00:00:00Z",
  "infinity",
  "24:61",
  "P999999999Y",
  "on",
  "true",
  "'; drop table member; --",
  "a".repeat(10_000),
  "\u{1f600}".repeat(300),
  "\ud800",
  "\u202e\u0007\u001b[31m",
  "../../../etc/passwd",
  "a@b",
  "vane@vanehouse.example",
  "a@b.example, c@d.example",
  "=?utf-8?q?=00?=",
  "<p>a</p>",
  "Europe/Nowhere",
  "(",
  "*",
  "path,code\n\0,\n",
];

const SHAPES: readonly ((form: string) => Pick<OddRequest, "headers" | "body">)[] = [
  () => ({ headers: {}, body: null }),
  () => ({ headers: { "content-type": "application/x-www-form-urlencoded" }, body: "" }),
  () => ({ headers: { "content-type": "application/json" }, body: '{"do":1}' }),
  () => ({ headers: { "content-type": "application/json" }, body: "{" }),
  () => ({ headers: { "content-type": "text/plain" }, body: "do=1" }),
  (form) => ({ headers: {}, body: form }),
  (form) => ({ headers: { "content-type": "nonsense" }, body: form }),
  () => ({ headers: { "content-type": "multipart/form-data" }, body: "--x\r\n\r\n" }),
  () => ({ headers: { "content-type": `multipart/form-data; boundary=${BOUNDARY}` }, body: "" }),
  () => ({ headers: { "content-type": `multipart/form-data; boundary=${BOUNDARY}` }, body: `--${BOUNDARY}\r\n` }),
  () => ({
    headers: { "content-type": `multipart/form-data; boundary=${BOUNDARY}` },
    body: `--${BOUNDARY}\r\nContent-Disposition: form-data; name="do"\r\n\r\nsave`,
  }),
  () => ({
    headers: { "content-type": `multipart/form-data; boundary=${BOUNDARY}` },
    body: `--${BOUNDARY}\r\nContent-Disposition: form-data\r\n\r\nsave\r\n--${BOUNDARY}--\r\n`,
  }),
  () => ({
    headers: { "content-type": `multipart/form-data; boundary=${BOUNDARY}` },
    body: `--${BOUNDARY}\r\nContent-Disposition: form-data; name="file"; filename="a\0b"\r\nContent-Type: \u0001\r\n\r\nx\r\n--${BOUNDARY}--\r\n`,
  }),
  (form) => ({ headers: { "content-type": "application/x-www-form-urlencoded; charset=utf-16" }, body: form }),
  () => ({ headers: { "content-type": "application/x-www-form-urlencoded" }, body: "%&=%%=%zz&&&=" }),
  () => ({
    headers: { "content-type": "application/x-www-form-urlencoded" },
    body: "__proto__=1&do=__proto__&kind=__proto__",
  }),
];

const OTHER_METHODS = ["PUT", "PATCH", "DELETE", "OPTIONS", "PROPFIND", "HEAD"];

/** Everything at these places that no page of ours sends: bodies that are no forms, odd parameters, other methods. */
export function* oddRequests(
  places: readonly Place[],
  known: KnownValues,
  { seed, looks }: { readonly seed: bigint; readonly looks: number },
): Generator<OddRequest> {
  const below = randomFrom(seed);
  const any = <T>(from: readonly T[]): T => from[below(from.length)] as T;
  for (const { path, file, methods } of places) {
    const words = wordsOf(file);
    const pathOf = (odd: boolean) =>
      path.replace(/:(\w+)/g, (_, name: string) => {
        const fitting = known[name.toLowerCase()];
        return encode(fitting !== undefined && (!odd || below(2) === 0) ? any(fitting) : any(ODD));
      }) || "/";
    const query = () =>
      Array.from(
        { length: below(4) },
        () => `${encode(any(words.names))}=${encode(any([...ODD, ...words.texts]))}`,
      ).join("&");
    const look = (number: number) => `${pathOf(number > 1)}${below(4) === 0 ? ".data" : ""}?${query()}`;
    const shapes = methods.includes("POST") ? SHAPES : [];
    const looksHere = methods.includes("GET") ? looks : 0;
    for (const shape of shapes) yield { method: "POST", path: pathOf(false), ...shape("do=save&kind=settle") };
    for (let number = 0; number < looksHere; number += 1)
      yield { method: "GET", path: look(number), headers: {}, body: null };
    for (const method of methods.includes("POST") ? OTHER_METHODS : [...OTHER_METHODS, "POST"])
      yield { method, path: pathOf(false), headers: {}, body: null };
  }
}

/** Right forms with one field that is not: so many times each is left out, stands there twice, or has an odd value. */
export function* brokenForms(
  right: readonly (readonly [path: string, fields: Readonly<Record<string, string>>])[],
  known: KnownValues,
  { seed, times }: { readonly seed: bigint; readonly times: number },
): Generator<OddRequest> {
  const below = randomFrom(seed);
  const any = <T>(from: readonly T[]): T => from[below(from.length)] as T;
  const fill = (text: string) => text.replace(/\{(\w+)\}/g, (_, name: string) => any(known[name] ?? [UNKNOWN_ID]));
  const headers = { "content-type": "application/x-www-form-urlencoded;charset=UTF-8" };
  const post = (path: string, pairs: readonly (readonly [string, string])[]): OddRequest => ({
    method: "POST",
    path: fill(path),
    headers,
    body: pairs.map(([name, text]) => `${encode(name)}=${encode(text)}`).join("&"),
  });
  // What a field carries as JSON, with about a third of its values odd, of another type, or left out.
  const within = (text: string) =>
    /^[[{]/.test(text)
      ? JSON.stringify(JSON.parse(text), (name, value) =>
          name === "" || typeof value === "object" || below(3) > 0
            ? value
            : any([...ODD, 7, -1.5, null, [], {}, undefined]),
        )
      : any(ODD);
  for (const [path, fields] of right) {
    const filled = () => Object.entries(fields).map(([name, text]) => [name, fill(text)] as const);
    yield post(path, filled());
    for (const broken of Object.keys(fields).flatMap((name) => Array.from({ length: times }, () => name))) {
      const others = filled().filter(([name]) => name !== broken);
      const values = [
        [],
        [fill(fields[broken] ?? ""), fill(fields[broken] ?? "")],
        [UNKNOWN_ID],
        [any(ODD)],
        [within(fill(fields[broken] ?? ""))],
      ];
      yield post(path, [...others, ...any(values).map((value) => [broken, value] as const)]);
    }
  }
}

// Half a pair of UTF-16 is in no URL.
const encode = (text: string) => (text.isWellFormed?.() === false ? "%ED%A0%80" : encodeURIComponent(text));

/** The names and words that a route and what reads its forms are written with. */
function wordsOf(file: string): Readonly<Record<"names" | "texts", readonly string[]>> {
  const route = readFileSync(join(WEB, file), "utf8");
  const forms = [...route.matchAll(/from "(?:\.\.\/)+(server\/[\w/-]+\.server)"/g)].map(
    ([, path]) => `${WEB}/${path}.ts`,
  );
  const source = [route, ...forms.map((path) => readFileSync(path, "utf8"))].join("\n");
  const names = [...source.matchAll(/(?:get(?:All)?\("|^\s*|\{ )([a-zA-Z][\w-]{0,30})(?:"\)|: )/gm)].map(
    ([, name = ""]) => name,
  );
  const texts = [...source.matchAll(/"([a-z][\w-]{0,30})"/g)].map(([, text = ""]) => text);
  return { names: ["id", ...new Set(names)], texts: ["on", ...new Set(texts)] };
}
