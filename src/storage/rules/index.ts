export * from "./automatic-answers";
export * from "./correspondents";
export * from "./gone-names";
export * from "./rounds";
export * from "./rule-sample";
export * from "./rules";
