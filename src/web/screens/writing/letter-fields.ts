import type { Draft } from "../../../core/writing/draft";

/** A draft as its form posts it: with the record that it is filed on and, as JSON, what that asked for. */
export function letterFields({ files, categories = [], template, ...letter }: Draft, fields: string) {
  return {
    ...letter,
    promises: JSON.stringify(letter.promises ?? []),
    enclosures: JSON.stringify(letter.enclosures ?? []),
    ...(categories.length === 0 ? {} : { categories: categories.join(" ") }),
    ...(template === undefined ? {} : { template }),
    ...(files === undefined ? {} : { record: files.id, fields }),
  };
}
