import { type ChildProcess, spawn } from "node:child_process";
import { createInterface } from "node:readline";

/** The application in a process of its own, as `npm start` runs it. */
export type ServerProcess = {
  readonly pid: number;
  readonly httpPort: number;
  readonly mailPort: number;
  /** What it has written into its log and its errors up to now. */
  readonly said: () => readonly string[];
  /** kill -9. */
  readonly kill: () => Promise<void>;
  /** As Ctrl-C or a service manager ends it; gives the exit code. */
  readonly stop: () => Promise<number | null>;
};

/** Starts it on free ports; rejects with what it said when it ends before it is ready. */
export function startServerProcess(environment: Readonly<Record<string, string>>): Promise<ServerProcess> {
  const child = spawn(process.env.NODEPROF ?? process.execPath, ["build/main/start.js"], {
    env: {
      ...process.env,
      // As `npm start` has it: threads share what memory they leave, and little is held until the next sweep.
      MALLOC_ARENA_MAX: "2",
      NODE_OPTIONS: "--max-old-space-size=768 --max-semi-space-size=16",
      HTTP_PORT: "0",
      MAIL_PORT: "0",
      SECURE_COOKIES: "false",
      SMTP_OUT_HOST: "127.0.0.1",
      SEND_HOLD_SECONDS: "0",
      CHECK_DKIM: "false",
      LOG_LEVEL: "info",
      WEB_PROCESSES: "1",
      ...environment,
    },
    stdio: ["ignore", "pipe", "pipe"],
  });
  const ended = new Promise<number | null>((resolve) => child.once("exit", resolve));
  return new Promise((resolve, reject) => {
    const said: string[] = [];
    child.stderr.on("data", (chunk) => said.push(String(chunk)));
    createInterface({ input: child.stdout }).on("line", (line) => {
      said.push(line);
      const ready = readyLine(line);
      if (ready !== null)
        resolve({
          ...ready,
          pid: child.pid ?? 0,
          said: () => said.filter((line) => readyLine(line) === null),
          kill: () => end(child, "SIGKILL").then(() => {}),
          stop: () => end(child, "SIGTERM"),
        });
    });
    ended.then((code) => reject(new Error(`the server ended with ${code}:\n${said.join("\n")}`)));
    const end = (process: ChildProcess, signal: NodeJS.Signals) => {
      process.kill(signal);
      return ended;
    };
  });
}

function readyLine(line: string): { httpPort: number; mailPort: number } | null {
  if (!line.includes('"msg":"ready"')) return null;
  const { httpPort, mailPort } = JSON.parse(line);
  return { httpPort, mailPort };
}
