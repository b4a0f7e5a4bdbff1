/** The twelve inks of categories. */
export const INKS = [
  "umber",
  "moss",
  "plum",
  "slate",
  "brick",
  "sand",
  "rose",
  "olive",
  "copper",
  "lagoon",
  "heather",
  "graphite",
] as const;
export type Ink = (typeof INKS)[number];
