import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { text } from "node:stream/consumers";

/** A site of the outside world where lists are left (RFC 8058): it knows every path that begins with /leave. */
export type LeavingSite = {
  readonly port: number;
  /** What it was asked, as "host/path body", in order. */
  readonly asked: readonly string[];
  readonly close: () => Promise<void>;
};

/** Starts the stand-in for the sites that mail of lists names. */
export async function startLeavingSite(host: string): Promise<LeavingSite> {
  const asked: string[] = [];
  const server = createServer((request, response) => {
    text(request)
      .then((body) => {
        asked.push(`${request.headers.host}${request.url} ${body}`);
        const isKnown = request.method === "POST" && request.url?.startsWith("/leave") === true;
        response.writeHead(isKnown ? 200 : 404, { "Content-Type": "text/plain" });
        response.end(isKnown ? "You have left." : "There is nothing here.");
      })
      .catch(() => response.destroy());
  });
  await new Promise<void>((resolve) => server.listen(0, host, resolve));
  return {
    port: (server.address() as AddressInfo).port,
    asked,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
