import type { Attachment as Part } from "postal-mime";
import { type OpenedTnef, openTnef } from "./tnef";

/** The parts that a message carries, containers opened, and the text that stood in a container. */
export type CarriedParts = {
  readonly parts: readonly Part[];
  readonly contents: readonly Uint8Array[];
  readonly text: string | null;
  readonly html: string | null;
  readonly warnings: readonly string[];
};

const CONTAINER_TYPE = /^application\/(?:vnd\.)?ms-tnef$/i;
const DAMAGED = "its container of files (TNEF) is damaged: what could be read of it stands beside it";

/** Opens the containers among a message's parts; one that is whole gives way to its files, a damaged one stays beside them. */
export function openContainers(parts: readonly Part[], contents: readonly Uint8Array[]): CarriedParts {
  if (!parts.some(isContainer)) return { parts, contents, text: null, html: null, warnings: [] };
  const opened = parts.map((part, at) => (isContainer(part) ? openTnef(contents[at] ?? new Uint8Array()) : null));
  const carried = parts.flatMap((part, at) => withFiles(part, contents[at] ?? new Uint8Array(), opened[at] ?? null));
  const whole = opened.filter((one) => one !== null);
  return {
    parts: carried.map(({ part }) => part),
    contents: carried.map(({ content }) => content),
    text: whole.map(({ text }) => text).find((text) => text !== null && text.trim() !== "") ?? null,
    html: whole.map(({ html }) => html).find((html) => html !== null && html.trim() !== "") ?? null,
    warnings: whole.every(({ isWhole }) => isWhole) ? [] : [DAMAGED],
  };
}

const isContainer = (part: Part) => CONTAINER_TYPE.test(part.mimeType) || /^winmail\.dat$/i.test(part.filename ?? "");

type Carried = { readonly part: Part; readonly content: Uint8Array };

function withFiles(part: Part, content: Uint8Array, opened: OpenedTnef | null): Carried[] {
  if (opened === null) return [{ part, content }];
  const files = opened.files.map(({ name, mimeType, contentId, content: bytes }) => ({
    content: bytes,
    part: {
      filename: name === "" ? null : name,
      mimeType: mimeType ?? typeByName(name),
      disposition: "attachment" as const,
      ...(contentId === null ? {} : { contentId, related: opened.html?.includes(`cid:${contentId}`) === true }),
      content: bytes,
    },
  }));
  return opened.isWhole ? files : [{ part, content }, ...files];
}

const TYPES_BY_ENDING: Readonly<Record<string, string>> = {
  pdf: "application/pdf",
  png: "image/png",
  jpg: "image/jpeg",
  jpeg: "image/jpeg",
  gif: "image/gif",
  txt: "text/plain",
  csv: "text/csv",
  html: "text/html",
  ics: "text/calendar",
  vcf: "text/vcard",
  docx: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  zip: "application/zip",
};

// Containers of old programs name no types.
function typeByName(name: string): string {
  return TYPES_BY_ENDING[/\.(\w{2,5})$/.exec(name)?.[1]?.toLowerCase() ?? ""] ?? "application/octet-stream";
}
