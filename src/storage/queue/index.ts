export * from "./commands";
export * from "./job-attempts";
export * from "./job-queue";
export * from "./live-channel";
