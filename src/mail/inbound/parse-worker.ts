import { parentPort } from "node:worker_threads";
import type { ParseOrder, ParseReport } from "./parse-aside";
import { parseMessage } from "./parse-message";

// The other side of `parse-aside`: the attachments' bytes stay here, as importing keeps the whole message only.
parentPort?.on("message", async ({ number, raws }: ParseOrder) => {
  const messages = [];
  for (const raw of raws) messages.push((await parseMessage(raw)).message);
  parentPort?.postMessage({ number, messages } satisfies ParseReport);
});
