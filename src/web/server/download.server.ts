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
