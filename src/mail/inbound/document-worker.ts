import { parentPort } from "node:worker_threads";
import type { NamedFile } from "../../core/kernel/named-file";
import { textOfDocument } from "./document-text";
import type { Order, Report } from "./thread";

// The other side of `documents-aside`: what cannot be read has no text.
parentPort?.on("message", async ({ number, question }: Order<NamedFile>) => {
  const answer = await textOfDocument(question).catch(() => null);
  parentPort?.postMessage({ number, answer } satisfies Report<string | null>);
});
