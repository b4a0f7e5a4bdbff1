import type { NamedFile } from "../../core/kernel/named-file";
import { startThread, type Thread } from "./thread";

/** Reads the texts of files beside what this thread does meanwhile. */
export type DocumentReader = {
  /** The text of a file; null where it has none, is damaged, or takes too long. */
  readonly textOf: (file: NamedFile) => Promise<string | null>;
  readonly close: () => Promise<void>;
};

const MAX_MEGABYTES = 512;
const PATIENCE_MS = 30_000;

/** A reader of files; a file that breaks its thread, or holds it up for `patienceMs`, costs that thread and nothing else. Close it, or the process does not end. */
export function documentsAside(patienceMs: number = PATIENCE_MS): DocumentReader {
  let thread: Thread<NamedFile, string | null> | null = null;
  const close = async () => {
    await thread?.close();
    thread = null;
  };
  return {
    async textOf(file) {
      thread ??= startThread("document-worker.ts", { maxMegabytes: MAX_MEGABYTES });
      const copy = Uint8Array.from(file.content);
      let timer: NodeJS.Timeout | undefined;
      const late = new Promise<never>((_, reject) => {
        timer = setTimeout(() => reject(new Error("it took too long")), patienceMs);
      });
      try {
        return await Promise.race([thread.ask({ ...file, content: copy }, [copy.buffer]), late]);
      } catch {
        await close();
        return null;
      } finally {
        clearTimeout(timer);
      }
    },
    close,
  };
}
