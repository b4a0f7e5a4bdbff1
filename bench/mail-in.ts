import { fork } from "node:child_process";
import { fileURLToPath } from "node:url";
import { listenForMail, parseMessage } from "~/mail/index";
import type { Wired } from "~/main/wiring";
import { knowsAddress, receiveMessage } from "~/operations/index.server";
import { letter } from "./letter";
import type { Figure } from "./measure";

const CONNECTIONS = 4;
const MESSAGES = 1_200;
const PARSED = 600;
const LEAST = 0.25;
async function parsedPerSecond(): Promise<number> {
  const letters = Array.from({ length: PARSED }, (_, at) => letter(at, "parse"));
  for (const raw of letters.slice(0, 100)) await parseMessage(raw, "a@bench.example");
  const start = performance.now();
  for (const raw of letters) await parseMessage(raw, "a@bench.example");
  return PARSED / ((performance.now() - start) / 1_000);
}

/** Has another process deliver letters, as another server would; gives how many a second were said 250 to. */
export function deliveredPerSecond(port: number, round: string, count: number): Promise<number> {
  const child = fork(fileURLToPath(new URL("./deliver.ts", import.meta.url)), { execArgv: ["--import", "tsx"] });
  return new Promise((resolve, reject) => {
    child.once("message", (perSecond) => resolve(Number(perSecond)));
    child.once("exit", (code) => code !== 0 && reject(new Error(`the sender ended with ${code}`)));
    child.send({ port, round, count, connections: CONNECTIONS });
  });
}

/**
 * Messages in per second over SMTP, durable, with 4 connections, against parsing alone with the same library. The
 * sender is a process of its own, as senders are; database, sender and receiver share the machine.
 */
export async function mailIn({ deps }: Wired): Promise<Figure> {
  const listener = await listenForMail(
    { host: "127.0.0.1", port: 0, maxBytes: 10_000_000 },
    {
      knows: (address) => knowsAddress(deps, address),
      accept: async (mail) => void (await receiveMessage(deps, mail)),
      onProblem: (problem) => console.error(problem),
    },
  );
  await deliveredPerSecond(listener.port, "warm", 200);
  const floor = await parsedPerSecond();
  const measured = await deliveredPerSecond(listener.port, "timed", MESSAGES);
  await listener.close();
  const ratio = measured / floor;
  return {
    name: `messages in over SMTP, ${CONNECTIONS} connections, durable`,
    unit: "messages/s",
    measured,
    floor,
    floorName: "parsing alone",
    ratio,
    asked: `at least ${LEAST}`,
    holds: ratio >= LEAST,
  };
}
