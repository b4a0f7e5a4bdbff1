import { parentPort } from "node:worker_threads";
import type { MailMessage } from "../../core/message/mail-message";
import { parseMessage } from "./parse-message";
import type { Order, Report } from "./thread";

// The other side of `parse-aside`: the attachments' bytes stay here, as importing keeps the whole message only.
parentPort?.on("message", async ({ number, question: raws }: Order<readonly Uint8Array[]>) => {
  const answer: MailMessage[] = [];
  for (const raw of raws) answer.push((await parseMessage(raw)).message);
  parentPort?.postMessage({ number, answer } satisfies Report<readonly MailMessage[]>);
});
