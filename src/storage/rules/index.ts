export * from "./correspondents";
export * from "./rule-sample";
export * from "./rules";
