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
  const ascii = fileName.replace(/[^\x20-\x7e]|["\\%]/g, "_");
  return new Response(new Uint8Array(content), {
    headers: {
      "Content-Type": contentType,
      "Content-Disposition": `attachment; filename="${ascii}"; filename*=UTF-8''${encodeURIComponent(fileName)}`,
      "Content-Security-Policy": "default-src 'none'; sandbox",
      "X-Content-Type-Options": "nosniff",
      "Cache-Control": "private, no-store",
    },
  });
}
