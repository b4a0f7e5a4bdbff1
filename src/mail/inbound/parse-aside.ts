import { Worker } from "node:worker_threads";
import type { MailMessage } from "../../core/message/mail-message";

/** What the thread is asked for, and what it answers under the same number. */
export type ParseOrder = { readonly number: number; readonly raws: readonly Uint8Array[] };
export type ParseReport = { readonly number: number; readonly messages: readonly MailMessage[] };

/** Understands many messages beside what this thread does meanwhile. */
export type AsideParser = {
  /** The messages in the same order, as `parseMessage` understands them. Rejects when the thread broke down. */
  readonly parse: (raws: readonly Uint8Array[]) => Promise<readonly MailMessage[]>;
  readonly close: () => Promise<void>;
};

type Waiting = { readonly done: (messages: readonly MailMessage[]) => void; readonly failed: (why: unknown) => void };

// A thread does not inherit that this process reads TypeScript, and is told how before it begins.
const START = "import(workerData.api).then(({ register }) => { register(); return import(workerData.module); });";

function startThread(): Worker {
  const api = import.meta.resolve("tsx/esm/api");
  const module = new URL("parse-worker.ts", import.meta.url).href;
  const code = `const { workerData } = require("node:worker_threads"); ${START}`;
  return new Worker(code, { eval: true, workerData: { api, module } });
}

/** Starts a thread that parses. Close it, or the process does not end. */
export function parserAside(): AsideParser {
  const worker = startThread();
  const waiting = new Map<number, Waiting>();
  let count = 0;
  let broken: Error | null = null;
  const breakDown = (why: Error) => {
    broken ??= why;
    for (const { failed } of waiting.values()) failed(broken);
    waiting.clear();
  };
  worker.on("message", ({ number, messages }: ParseReport) => {
    waiting.get(number)?.done(messages);
    waiting.delete(number);
  });
  worker.on("error", breakDown);
  worker.on("exit", () => breakDown(new Error("the thread that parses messages has ended")));
  return {
    parse: (raws) =>
      new Promise((done, failed) => {
        if (broken !== null) return failed(broken);
        count += 1;
        waiting.set(count, { done, failed });
        // Copies: what is read from a file shares its memory with what comes after it.
        const copies = raws.map((raw) => Uint8Array.from(raw));
        worker.postMessage(
          { number: count, raws: copies } satisfies ParseOrder,
          copies.map(({ buffer }) => buffer),
        );
      }),
    close: async () => void (await worker.terminate()),
  };
}
