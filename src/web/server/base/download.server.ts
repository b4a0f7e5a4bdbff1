import type { Readable } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";

/** The types of files that a browser may show in place, as nothing of them runs. */
export const SHOWN_TYPES = /^(?:image\/(?:png|jpeg|gif|webp)|application\/pdf|text\/(?:plain|csv))$/;

/** A file shown in place: only types that run nothing, under a policy by which nothing could. */
export function preview(content: Uint8Array, contentType: string): Response {
  return new Response(new Uint8Array(content), {
    headers: {
      "Content-Type": contentType.startsWith("text/") ? "text/plain; charset=utf-8" : contentType,
      "Content-Disposition": "inline",
      "Content-Security-Policy":
        "default-src 'none'; style-src 'unsafe-inline'; object-src 'self'; plugin-types application/pdf",
      "X-Content-Type-Options": "nosniff",
      "Cache-Control": "private, no-store",
    },
  });
}

/** A download that no browser takes for a page: named by RFC 6266, never sniffed, never shown in place. */
export function download(content: Uint8Array, fileName: string, contentType: string): Response {
  return new Response(new Uint8Array(content), { headers: downloadHeaders(fileName, contentType) });
}

/** The same in pieces, of so many bytes where that is known; a stream that breaks off is a download that failed. */
export function downloadStream(content: Readable, fileName: string, contentType: string, bytes?: number): Response {
  const length: Record<string, string> = bytes === undefined ? {} : { "Content-Length": String(bytes) };
  const headers = { ...downloadHeaders(fileName, contentType), ...length };
  return new Response(createReadableStreamFromReadable(content), { headers });
}

// RFC 9110 5.6.2: what a type and its parameters are made of. Mail may say anything; what no header can carry is bytes.
const MEDIA_TYPE = /^[\w!#$%&'*+.^`|~-]+\/[\w!#$%&'*+.^`|~-]+(?:\s*;[\x20-\x7e]*)?$/;
const HALF_A_PAIR = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

function downloadHeaders(fileName: string, contentType: string): Readonly<Record<string, string>> {
  const ascii = fileName.replace(/[^\x20-\x7e]|["\\%]/g, "_");
  const encoded = encodeURIComponent(fileName.replace(HALF_A_PAIR, "_"));
  return {
    "Content-Type": MEDIA_TYPE.test(contentType) ? contentType : "application/octet-stream",
    "Content-Disposition": `attachment; filename="${ascii}"; filename*=UTF-8''${encoded}`,
    "Content-Security-Policy": "default-src 'none'; sandbox",
    "X-Content-Type-Options": "nosniff",
    "Cache-Control": "private, no-store",
  };
}
