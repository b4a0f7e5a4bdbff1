import { parseMessage } from "../parsing/parse-message";
import { type SafeHtml, type SanitiseOptions, shownHtml } from "./sanitise-html";

/** How a letter is shown: whether with pictures from elsewhere, and the language of what is said in it beside its own words. */
export type Showing = Pick<SanitiseOptions, "showsRemote" | "locale">;

// As a part of the page; a larger picture is an attachment to open.
const MAX_INLINE_IMAGE_BYTES = 2 * 1024 * 1024;
const INLINE_TYPES = /^image\/(png|jpeg|gif|webp)$/;

/** The HTML of a message made harmless, with its own inline pictures in it; null where it has none. */
export async function safeHtmlOf(raw: Uint8Array, showing: Showing = {}): Promise<SafeHtml | null> {
  const { message, contents } = await parseMessage(raw);
  if (message.html === null) return null;
  const inlineImage = (contentId: string) => {
    const part = message.attachments.find((attachment) => attachment.contentId === contentId);
    const content = part === undefined ? undefined : contents[part.index];
    if (part === undefined || content === undefined || !INLINE_TYPES.test(part.contentType)) return null;
    if (content.byteLength > MAX_INLINE_IMAGE_BYTES) return null;
    return `data:${part.contentType};base64,${Buffer.from(content).toString("base64")}`;
  };
  return shownHtml(message.html, { inlineImage, ...showing });
}
