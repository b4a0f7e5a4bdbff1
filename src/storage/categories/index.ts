export * from "./category-figures";
export * from "./category-steps";
export * from "./category-uses";
