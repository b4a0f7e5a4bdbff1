export * from "./correspondents";
export * from "./gone-names";
export * from "./rule-sample";
export * from "./rules";
