import { timeTexts } from "../../texts/en/time";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(timeTexts);

/** The size of a file, in bytes, as people say it. */
export function sizeInWords(bytes: number): Said {
  if (bytes < 1_000) return said("time.bytes", { count: bytes });
  return bytes < 1_000_000
    ? said("time.kilobytes", { count: Math.round(bytes / 1_000) })
    : said("time.megabytes", { count: bytes / 1_000_000 });
}
