export { blobBySha256 } from "./blobs";
export * from "./database";
export type { Database, Pool, Transaction } from "./handle";
export * from "./latest-activity";
