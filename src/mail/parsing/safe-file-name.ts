import { plainLine } from "../../core/text/plain-line";

// Most file systems take 255 bytes; some of them go to the numbers that make names unique.
const MAX_FILE_NAME_BYTES = 200;
const DEVICE_NAMES = /^(?:con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;

/** A name that is no path and no device, hides no direction or control marks, and is not too long for a file system. */
export function safeFileName(name: string): string {
  const base = name.split(/[\\/]/).at(-1) ?? "";
  const plain = plainLine(base)
    .replace(/[<>:"|?*]/g, "")
    .replace(/^[.\s]+|[.\s]+$/g, "")
    .replace(DEVICE_NAMES, "_$&");
  if (plain === "") return "unnamed";
  if (Buffer.byteLength(plain) <= MAX_FILE_NAME_BYTES) return plain;
  const extension = /\.[\w-]{1,10}$/.exec(plain)?.[0] ?? "";
  return `${withinBytes(plain, MAX_FILE_NAME_BYTES - extension.length).replace(/[.\s]+$/, "")}${extension}`;
}

/** The start of a text that fits into so many bytes of UTF-8, no character cut. */
export function withinBytes(text: string, bytes: number): string {
  const cut = new TextDecoder().decode(Buffer.from(text).subarray(0, bytes), { stream: true });
  return cut.replace(/\uFFFD$/, "");
}
