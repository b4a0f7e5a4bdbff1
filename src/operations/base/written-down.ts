import { sayIn } from "../../texts/say";
import type { Kept } from "../../texts/stored";

/** Says what is sent or kept as a text for everybody, whatever language they read the screens in: mails, exports, trails. */
export const writtenDown = sayIn("en");

/** The same of what may be somebody else's text. */
export const asText = (kept: Kept): string => (typeof kept === "string" ? kept : writtenDown(kept));
