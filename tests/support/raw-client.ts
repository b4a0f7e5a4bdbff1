import { Agent, request } from "node:http";
import type { Readable } from "node:stream";

export type RawAnswer = {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly text: string;
};

type RawRequest = {
  readonly method?: string;
  readonly path: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string | Uint8Array | Readable | null;
};

/** Somebody who sends what no browser would: nothing is added, nothing is followed. */
export type RawClient = {
  readonly send: (request: RawRequest) => Promise<RawAnswer>;
  /** Sends from a page of ours, with whatever session it has. */
  readonly ownPage: (request: RawRequest) => Promise<RawAnswer>;
  /** Comes in as a colleague of the demo. */
  readonly comeIn: (name: string) => Promise<void>;
  readonly cookie: () => string;
  readonly close: () => void;
};

export function rawClient(port: number): RawClient {
  const agent = new Agent({ keepAlive: true, maxSockets: 16 });
  const origin = `http://127.0.0.1:${port}`;
  let cookie = "";
  const send: RawClient["send"] = (whole) =>
    new Promise((resolve, reject) => {
      const { method = "GET", path, headers = {}, body = null } = whole;
      const sent = request({ host: "127.0.0.1", port, method, path, headers, agent }, (response) => {
        const chunks: Uint8Array[] = [];
        response.on("data", (chunk) => chunks.push(chunk));
        response.on("error", reject);
        response.on("end", () =>
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            text: Buffer.concat(chunks).toString("utf8"),
          }),
        );
      });
      sent.on("error", (problem: NodeJS.ErrnoException) => {
        // As browsers do where a kept connection ended just before it was used again (RFC 9112 9.3.1).
        const isOver =
          sent.reusedSocket && problem.code === "ECONNRESET" && (body === null || typeof body === "string");
        if (isOver) send(whole).then(resolve, reject);
        else reject(problem);
      });
      if (body === null || typeof body === "string" || body instanceof Uint8Array) sent.end(body ?? undefined);
      else body.pipe(sent);
    });
  const ownPage: RawClient["ownPage"] = ({ headers, ...given }) =>
    send({ ...given, headers: { cookie, origin, ...headers } });
  return {
    send,
    ownPage,
    async comeIn(name) {
      const answer = await send({
        method: "POST",
        path: "/sign-in",
        headers: { origin, "content-type": "application/x-www-form-urlencoded" },
        body: new URLSearchParams({ colleague: name }).toString(),
      });
      const [first = ""] = [answer.headers["set-cookie"] ?? []].flat();
      if (answer.status !== 302) throw new Error(`${name} was not let in: ${answer.status}`);
      cookie = first.split(";")[0] ?? "";
    },
    cookie: () => cookie,
    close: () => agent.destroy(),
  };
}
